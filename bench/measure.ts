import { execFile, fork } from 'node:child_process'
import { once } from 'node:events'
import { readFile } from 'node:fs/promises'
import { fileURLToPath } from 'node:url'
import { promisify } from 'node:util'

const run = promisify(execFile)

export const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!

/**
 * Runs every measurement in turn, `rounds` times, so that a slow moment of the machine falls on all; gives the values of each, round by
 * round.
 */
export async function inTurn<Name extends string>(
  rounds: number,
  measurements: Record<Name, () => Promise<number>>,
): Promise<Record<Name, number[]>> {
  const names = Object.keys(measurements) as Name[]
  const values = Object.fromEntries(names.map(name => [name, [] as number[]])) as Record<Name, number[]>
  for (let round = 0; round < rounds; round++) for (const name of names) values[name].push(await measurements[name]())
  return values
}

/** The medians of what is measured {@link inTurn}. */
export async function interleaved<Name extends string>(
  rounds: number,
  measurements: Record<Name, () => Promise<number>>,
): Promise<Record<Name, number>> {
  const values = await inTurn(rounds, measurements)
  return Object.fromEntries(Object.entries<number[]>(values).map(([name, all]) => [name, median(all)])) as Record<Name, number>
}

/**
 * The median of the ratios within each round: nearer the truth than the ratio of two medians, where the machine's speed changes from round
 * to round.
 */
export const medianRatio = (ours: number[], theirs: number[]) => median(ours.map((value, round) => value / theirs[round]!))

/** Bytes a second of one download by curl. */
export async function throughput(url: string): Promise<number> {
  const { stdout } = await run('curl', ['-sS', '-o', '/dev/null', '-w', '%{speed_download}', '-A', BROWSER, url])
  return Number(stdout)
}

export const BROWSER = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0'
const MILLISECONDS = { us: 0.001, ms: 1, s: 1000 }

/**
 * Requests a second and 99th percentile of latency in milliseconds, by wrk.
 *
 * @param missing what is asked for is not there
 */
export async function load(
  url: string,
  seconds = 3,
  connections = 200,
  headers: Record<string, string> = {},
  { missing = false } = {},
): Promise<{ rate: number; p99: number }> {
  const fields = Object.entries({ 'User-Agent': BROWSER, 'Accept-Encoding': 'br', ...headers }).flatMap(([name, value]) => [
    '-H',
    `${name}: ${value}`,
  ])
  const { stdout } = await run('wrk', ['-t1', `-c${connections}`, `-d${seconds}s`, '--latency', ...fields, url])
  if (/Non-2xx/.test(stdout) !== missing) throw new Error(`${url} did not answer with success:\n${stdout}`)
  const [, p99, unit] = /99%\s+([\d.]+)(us|ms|s)/.exec(stdout)!
  return { rate: Number(/Requests\/sec:\s+([\d.]+)/.exec(stdout)![1]), p99: Number(p99) * MILLISECONDS[unit as keyof typeof MILLISECONDS] }
}

/** Resident memory of a process in bytes. */
export async function residentMemory(pid: number): Promise<number> {
  return Number(/VmRSS:\s+(\d+) kB/.exec(await readFile(`/proc/${pid}/status`, 'utf8'))![1]) * 1024
}

/** The greatest growth of a process's memory while some work is done, in bytes. */
export async function memoryGrowth(pid: number, work: () => Promise<unknown>): Promise<number> {
  const before = await residentMemory(pid)
  let peak = before
  // The last look may come when the process has ended.
  const watching = setInterval(
    () =>
      void residentMemory(pid).then(
        bytes => (peak = Math.max(peak, bytes)),
        () => undefined,
      ),
    50,
  )
  try {
    await work()
  } finally {
    clearInterval(watching)
  }
  return peak - before
}

/** Seconds that some work takes. */
export async function timed(work: () => Promise<unknown>): Promise<number> {
  const start = performance.now()
  await work()
  return (performance.now() - start) / 1000
}

/** The value that 95 of 100 do not pass. */
export const p95 = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length * 0.95)]!

/**
 * The 99th percentile, in milliseconds, of requests begun at a steady pace, whatever became of those before.
 * Asked for by a process of its own, so that what the bench does meanwhile does not count as waiting.
 */
export async function pacedP99(url: string, perSecond: number, seconds: number): Promise<number> {
  const client = fork(fileURLToPath(new URL('./pacedClient.ts', import.meta.url)), [url, String(perSecond), String(seconds)])
  const [p99] = await Promise.race([
    once(client, 'message') as Promise<[number]>,
    once(client, 'exit').then(([code]) => {
      throw new Error(`The measuring client ended with ${code}.`)
    }),
  ])
  await (client.exitCode === null && once(client, 'exit'))
  return p99
}
