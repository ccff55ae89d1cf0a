import { readFile } from 'node:fs/promises'
import { join, resolve } from 'node:path'
import { Problem } from '../core/problem'
import { formatSize } from '../core/files/size'
import type { VerifyState } from '../core/trust/item'
import { readEnvironment } from './environment'
import { loadSecrets } from './secrets'
import { restoreBackup, type BackupReport } from './services/trust/backup'
import { createHashing } from './services/trust/hashing'
import { openTrough } from './trough'

const USAGE = `trough verify [BACKUP]   reads every stored byte again; mends from a backup where one is named
trough backup FOLDER     copies everything into a folder, only what is new after the first time
trough restore FOLDER    makes the data folder (TROUGH_DATA, else ./data) of a backup

The server may go on running meanwhile; for "restore" there must be no data folder yet.`

const { data } = readEnvironment(process.env)

/** The JSON API of the server that runs on the data folder; undefined where none does. */
async function runningServer(): Promise<(<T>(path: string, method: string, body?: object) => Promise<T>) | undefined> {
  const text = await readFile(join(data, 'running.json'), 'utf8').catch(() => undefined)
  if (text === undefined) return undefined
  const { url } = JSON.parse(text) as { url: string }
  if (!await fetch(`${url}/api/health`).then(answer => answer.ok, () => false)) return undefined
  const { control } = await loadSecrets(data)
  return async <T>(path: string, method: string, body?: object): Promise<T> => {
    const response = await fetch(`${url}/api${path}`, {
      method, headers: { Authorization: `Bearer ${control}`, ...body && { 'Content-Type': 'application/json' } }, body: body && JSON.stringify(body), signal: AbortSignal.timeout(24 * 60 * 60 * 1000),
    })
    const answer = await response.json() as T & { title: string, detail: string }
    if (!response.ok) throw new Problem(response.status, answer.title, answer.detail)
    return answer
  }
}

/** Works through the server that runs, or on the data folder itself. */
async function withTrough<T>(through: (api: NonNullable<Awaited<ReturnType<typeof runningServer>>>) => Promise<T>, directly: (trough: Awaited<ReturnType<typeof openTrough>>) => Promise<T>): Promise<T> {
  const api = await runningServer()
  if (api) return through(api)
  const trough = await openTrough({ data })
  return directly(trough).finally(() => trough.close())
}

async function verify(from: string | undefined): Promise<number> {
  const say = ({ done, total, bytes }: VerifyState) => process.stderr.write(`\r${done} of ${total} read, ${formatSize(bytes)} `)
  const state = await withTrough<VerifyState>(async (api) => {
    await api('/verify', 'POST', { from })
    for (;;) {
      const now = await api<VerifyState>('/verify', 'GET')
      say(now)
      if (now.state !== 'running') return now
      await new Promise(resolve => setTimeout(resolve, 500))
    }
  }, async ({ verifying }) => {
    await verifying.start(from)
    await verifying.ended()
    const now = await verifying.state()
    say(now)
    return now
  })
  process.stderr.write('\n')
  for (const { kind, sha256, size, files, mended } of state.findings) {
    console.log(`${kind}  ${sha256}  ${formatSize(size)}  ${mended ?? 'not mended'}${files.map(file => `\n    “${file.title}”, edition ${file.edition}`).join('')}`)
  }
  if (state.error) console.error(state.error)
  const open = state.findings.filter(finding => !finding.mended)
  console.log(open.length ? `${open.length} not mended.` : state.state === 'done' ? 'All stored bytes are as they came in.' : `Verifying was ${state.state}.`)
  return open.length || state.state !== 'done' ? 1 : 0
}

async function backup(folder: string): Promise<number> {
  // The server may stand in another folder than this command.
  const path = resolve(folder)
  const report = await withTrough<BackupReport>(api => api('/backup', 'POST', { folder: path }), ({ backups }) => backups.make(path))
  console.log(`${report.blobs} stored files are in ${path}; ${report.copied} of them, ${formatSize(report.bytes)}, are new.`)
  for (const sha256 of report.unfit) console.error(`Missing or damaged here, and not copied: ${sha256}. Run "trough verify".`)
  return report.unfit.length ? 1 : 0
}

async function restore(folder: string): Promise<number> {
  const hashing = createHashing()
  const { made, blobs, lost } = await restoreBackup(folder, data, hashing).finally(() => hashing.close())
  console.log(`${data} is as it was on ${made}, with ${blobs} stored files.`)
  for (const sha256 of lost) console.error(`Missing or damaged in the backup: ${sha256}.`)
  return lost.length ? 1 : 0
}

async function main([command, argument]: string[]): Promise<number> {
  if (command === 'verify') return verify(argument)
  if (command === 'backup' && argument) return backup(argument)
  if (command === 'restore' && argument) return restore(argument)
  console.error(USAGE)
  return 2
}

try {
  process.exitCode = await main(process.argv.slice(2))
}
catch (error) {
  console.error(error instanceof Problem ? `${error.title} ${error.detail}` : error)
  process.exitCode = 1
}
