import { once } from 'node:events'
import { readFile } from 'node:fs/promises'
import { join, resolve } from 'node:path'
import { createInterface } from 'node:readline'
import { Writable } from 'node:stream'
import { resetPasswordSchema } from '../core/account/accountForms'
import { Problem } from '../core/problem'
import { formatSize } from '../core/files/size'
import type { VerifyState } from '../core/trust/trustReports'
import { CannotOpen } from './db/cannotOpen'
import { readEnvironment } from './environment'
import { repairFolder } from './repair'
import { readSecrets } from './secrets'
import { restoreBackup, type BackupReport } from './services/trust/backup'
import { createHashing } from './services/trust/hashing'
import { openTrough } from './trough'
import { parse } from './utils/request'

const USAGE = `trough password           gives the owner another password; with "end-second-factor" no code is asked for any more
trough verify [BACKUP]   reads every stored byte again; mends from a backup where one is named
trough backup FOLDER     copies everything into a folder, only what is new after the first time
trough restore FOLDER    makes the data folder (TROUGH_DATA, else ./data) of a backup
trough repair            makes a data folder start again that does not; with "before-update" as it was before the last update

The server may go on running meanwhile, but for "repair"; for "restore" there must be no data folder yet.`

const { data } = readEnvironment(process.env)

/** The JSON API of the server that runs on the data folder; undefined where none does. */
async function runningServer(): Promise<(<T>(path: string, method: string, body?: object) => Promise<T>) | undefined> {
  const text = await readFile(join(data, 'running.json'), 'utf8').catch(() => undefined)
  if (text === undefined) return undefined
  const { url } = JSON.parse(text) as { url: string }
  if (
    !(await fetch(`${url}/api/health`).then(
      answer => answer.ok,
      () => false,
    ))
  )
    return undefined
  const { control } = await readSecrets(data)
  return async <T>(path: string, method: string, body?: object): Promise<T> => {
    const response = await fetch(`${url}/api${path}`, {
      method,
      headers: { Authorization: `Bearer ${control}`, ...(body && { 'Content-Type': 'application/json' }) },
      body: body && JSON.stringify(body),
      signal: AbortSignal.timeout(24 * 60 * 60 * 1000),
    })
    const answer = (await response.json()) as T & { title: string; detail: string }
    if (!response.ok) throw new Problem(response.status, answer.title, answer.detail)
    return answer
  }
}

/** Works through the server that runs, or on the data folder itself. */
async function withTrough<T>(
  through: (api: NonNullable<Awaited<ReturnType<typeof runningServer>>>) => Promise<T>,
  directly: (trough: Awaited<ReturnType<typeof openTrough>>) => Promise<T>,
): Promise<T> {
  const api = await runningServer()
  if (api) return through(api)
  const trough = await openTrough({ data })
  return directly(trough).finally(() => trough.close())
}

async function verify(from: string | undefined): Promise<number> {
  const say = ({ done, total, bytes }: VerifyState) => process.stderr.write(`\r${done} of ${total} read, ${formatSize(bytes)} `)
  const state = await withTrough<VerifyState>(
    async api => {
      await api('/verify', 'POST', { from })
      for (;;) {
        const now = await api<VerifyState>('/verify', 'GET')
        say(now)
        if (now.state !== 'running') return now
        await new Promise(resolve => setTimeout(resolve, 500))
      }
    },
    async ({ verifying }) => {
      await verifying.start(from)
      await verifying.ended()
      const now = await verifying.state()
      say(now)
      return now
    },
  )
  process.stderr.write('\n')
  for (const { kind, sha256, size, files, mended } of state.findings) {
    console.log(
      `${kind}  ${sha256}  ${formatSize(size)}  ${mended ?? 'not mended'}${files.map(file => `\n    “${file.title}”, edition ${file.edition}`).join('')}`,
    )
  }
  if (state.error) console.error(state.error)
  for (const words of state.database ?? []) console.log(`database  ${words} Restore a backup: npm run trough restore FOLDER.`)
  const open = [...state.findings.filter(finding => !finding.mended), ...(state.database ?? [])]
  console.log(
    open.length
      ? `${open.length} not mended.`
      : state.state === 'done'
        ? 'All stored bytes are as they came in, and the database is whole.'
        : `Verifying was ${state.state}.`,
  )
  return open.length || state.state !== 'done' ? 1 : 0
}

async function backup(folder: string): Promise<number> {
  // The server may stand in another folder than this command.
  const path = resolve(folder)
  const report = await withTrough<BackupReport>(
    api => api('/backup', 'POST', { folder: path }),
    ({ backups }) => backups.make(path),
  )
  console.log(`${report.blobs} stored files are in ${path}; ${report.copied} of them, ${formatSize(report.bytes)}, are new.`)
  for (const sha256 of report.unfit) console.error(`Missing or damaged here, and not copied: ${sha256}. Run "trough verify".`)
  return report.unfit.length ? 1 : 0
}

async function restore(folder: string): Promise<number> {
  const hashing = createHashing()
  const { made, blobs, newSecrets, lost } = await restoreBackup(folder, data, hashing).finally(() => hashing.close())
  console.log(`${data} is as it was on ${made}, with ${blobs} stored files.`)
  if (newSecrets) console.log('The secrets of the backup were cut off or missing, and were made anew: everybody has to sign in again.')
  for (const sha256 of lost) console.error(`Missing or damaged in the backup: ${sha256}.`)
  return lost.length ? 1 : 0
}

/** A line from whoever sits at the machine; what is typed is not shown. */
async function ask(question: string): Promise<string> {
  process.stderr.write(question)
  const silent = new Writable({ write: (_chunk, _encoding, done) => done() })
  const lines = createInterface({ input: process.stdin, output: process.stdin.isTTY ? silent : undefined, terminal: process.stdin.isTTY })
  try {
    const [line] = (await once(lines, 'line')) as [string]
    process.stderr.write('\n')
    return line
  } finally {
    lines.close()
  }
}

async function password(endSecondFactor: boolean): Promise<number> {
  const { password: chosen } = parse(resetPasswordSchema, { password: await ask('New password: ') })
  const email = await withTrough(
    async api => (await api<{ email: string }>('/account/password-reset', 'POST', { password: chosen, endSecondFactor })).email,
    ({ account }) => account.resetPassword(chosen, endSecondFactor),
  )
  console.log(
    `${email} signs in with the new password; whoever was signed in is signed out.${endSecondFactor ? ' No code is asked for any more.' : ''}`,
  )
  return 0
}

async function repair(beforeUpdate: boolean): Promise<number> {
  for (const line of await repairFolder(resolve(data), { beforeUpdate })) console.log(line)
  return 0
}

async function main([command, argument]: string[]): Promise<number> {
  if (command === 'password') return password(argument === 'end-second-factor')
  if (command === 'repair') return repair(argument === 'before-update')
  if (command === 'verify') return verify(argument)
  if (command === 'backup' && argument) return backup(argument)
  if (command === 'restore' && argument) return restore(argument)
  console.error(USAGE)
  return 2
}

try {
  process.exitCode = await main(process.argv.slice(2))
} catch (error) {
  console.error(error instanceof Problem ? `${error.title} ${error.detail}` : error instanceof CannotOpen ? error.message : error)
  process.exitCode = 1
}
