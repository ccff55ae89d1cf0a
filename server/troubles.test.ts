import { execFileSync } from 'node:child_process'
import { cp, mkdir, mkdtemp, readFile, readdir, rm, stat, truncate, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import { beforeMigrationOf, openDatabase } from './db/connection'
import { repairFolder } from './repair'
import { ROOT } from './root'
import { restoreBackup } from './services/trust/backup'
import { createHashing } from './services/trust/hashing'
import { openTrough } from './trough'

let folder: string
let count = 0
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'trough-troubles-'))
})
afterAll(() => rm(folder, { recursive: true, force: true }))

async function dataFolder(): Promise<string> {
  const data = join(folder, `data-${++count}`)
  await cp(inject('template'), data, { recursive: true })
  return data
}
const isMissing = (path: string) =>
  stat(path).then(
    () => false,
    () => true,
  )

/** What the console says when Trough is started on a folder. */
async function said(data: string): Promise<string> {
  try {
    await (await openTrough({ data })).close()
    return ''
  } catch (error) {
    return (error as Error).message
  }
}

describe('a start that cannot be', () => {
  it.each<[string, (data: string) => Promise<unknown>, RegExp]>([
    [
      'the log of the database is gone',
      data => rm(join(data, 'db/pg_wal'), { recursive: true }),
      /\/db is not whole: pg_wal missing\..*trough restore FOLDER.*trough repair/,
    ],
    [
      'the log of the database is cut',
      async data => {
        for (const name of await readdir(join(data, 'db/pg_wal')))
          if (/^[0-9A-F]{24}$/.test(name)) await truncate(join(data, 'db/pg_wal', name), 100)
      },
      /\/db does not open:.*trough restore FOLDER/,
    ],
    ['pg_control is cut', data => truncate(join(data, 'db/global/pg_control'), 100), /\/db does not open:.*trough restore FOLDER/],
    ['the secrets are cut', data => truncate(join(data, 'secrets.json'), 20), /secrets\.json is cut off or damaged\..*trough repair/],
    ['the secrets are gone', data => rm(join(data, 'secrets.json')), /secrets\.json is missing, though.*trough repair/],
  ])('says which file is wrong, and the command that helps: %s', async (_, spoil, words) => {
    const data = await dataFolder()
    await spoil(data)
    expect(await said(data)).toMatch(words)
    // Nothing was put in the place of what is damaged, and nobody holds the folder.
    expect(await said(data)).toMatch(words)
  })

  it('says so where the disk is mounted for reading alone', async () => {
    const data = await dataFolder()
    execFileSync('mount', ['--bind', data, data])
    try {
      execFileSync('mount', ['-o', 'remount,ro,bind', data])
      expect(await said(data)).toMatch(/cannot be written|read-only/)
    } finally {
      execFileSync('umount', [data])
    }
    expect(await said(data)).toBe('')
  })

  it('is mended where that can be: secrets are made anew, and the damaged ones kept', async () => {
    const data = await dataFolder()
    await truncate(join(data, 'secrets.json'), 20)
    expect((await repairFolder(data, { beforeUpdate: false })).join(' ')).toMatch(/secrets\.json was made anew.*The database in .* opens/)
    expect(await said(data)).toBe('')
    expect((await readdir(data)).some(name => name.startsWith('secrets.json-damaged-'))).toBe(true)
  })

  it('is no reason to lose a backup: one whose secrets are cut gives everything else back', async () => {
    const data = await dataFolder()
    const trough = await openTrough({ data })
    const backup = join(folder, 'backup')
    await trough.backups.make(backup)
    await trough.close()
    await truncate(join(backup, 'secrets.json'), 20)
    const hashing = createHashing()
    expect(await restoreBackup(backup, join(folder, 'restored'), hashing).finally(() => hashing.close())).toMatchObject({
      newSecrets: true,
      lost: [],
    })
    expect(await said(join(folder, 'restored'))).toBe('')
  })
})

describe('an update', () => {
  /** A data folder as the version before this one left it: without the newest step. */
  async function earlier(): Promise<string> {
    const data = await dataFolder()
    const steps = join(folder, 'steps')
    await cp(join(ROOT, 'server/db/migrations'), steps, { recursive: true })
    const journal = JSON.parse(await readFile(join(steps, 'meta/_journal.json'), 'utf8')) as { entries: unknown[] }
    journal.entries.pop()
    await writeFile(join(steps, 'meta/_journal.json'), JSON.stringify(journal))
    await rm(join(data, 'db'), { recursive: true })
    await (await openDatabase(join(data, 'db'), undefined, { migrationsFolder: steps })).close()
    return data
  }

  it('keeps the database as it was before, and can be taken back', async () => {
    const data = await earlier()
    expect(await said(data)).toBe('')
    expect(await isMissing(beforeMigrationOf(join(data, 'db')))).toBe(false)
    await truncate(join(data, 'db/global/pg_control'), 100)
    expect((await repairFolder(data, { beforeUpdate: false })).join(' ')).toMatch(/as it was before the last update.*kept in .*db-damaged-/)
    expect(await said(data)).toBe('')
  })

  it('is not undone by an older Trough: it refuses the folder, and changes nothing', async () => {
    const data = await dataFolder()
    const { db, close } = await openDatabase(join(data, 'db'))
    await db.execute(sql`insert into drizzle.__drizzle_migrations (hash, created_at) values ('newer', ${Date.now() + 1e11})`)
    await close()
    expect(await said(data)).toMatch(/was last used by a newer Trough.*trough repair before-update/)
    await expect(repairFolder(data, { beforeUpdate: false })).rejects.toThrow('newer Trough')
    await expect(repairFolder(data, { beforeUpdate: true })).rejects.toThrow('no copy from before an update')
  })
})

it('nobody else of the machine reaches what is in a data folder, however it was made', async () => {
  const data = await dataFolder()
  execFileSync('chmod', ['-R', '777', data])
  const trough = await openTrough({ data })
  expect([(await stat(data)).mode & 0o777, (await stat(join(data, 'db'))).mode & 0o777]).toEqual([0o700, 0o700])
  await trough.close()
  const fresh = join(folder, 'fresh')
  await mkdir(fresh, { mode: 0o777 })
  await (await openTrough({ data: fresh })).close()
  expect((await stat(fresh)).mode & 0o777).toBe(0o700)
  expect((await readFile(join(fresh, 'secrets.json'), 'utf8')).length).toBeGreaterThan(100)
})
