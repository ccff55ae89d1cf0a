import { execFileSync } from 'node:child_process'
import { chownSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { drizzle } from 'drizzle-orm/node-postgres'
import { migrate } from 'drizzle-orm/node-postgres/migrator'
import pg from 'pg'
import { MIGRATIONS } from '../db/connection'
import type { PostgresAddress } from '../db/drivers/postgres'

/** Where Debian keeps the programs of its PostgreSQL. */
const PROGRAMS = '/usr/lib/postgresql/15/bin'
const USER = 'postgres'
/** The database that those of the tests are made like. */
const TEMPLATE = 'trough'

/** A program of PostgreSQL, which refuses to be run by root. */
function run(program: string, args: string[]): void {
  const [command, ...given] = [join(PROGRAMS, program), ...args]
  const [first, rest] = process.getuid?.() === 0 ? ['runuser', ['-u', USER, '--', command!, ...given]] : [command!, given]
  execFileSync(first, rest, { stdio: ['ignore', 'ignore', 'inherit'], cwd: '/' })
}

/** Asks a database one thing, by a connection of its own. */
async function ask(address: PostgresAddress, question: string): Promise<void> {
  const client = new pg.Client(address)
  await client.connect()
  await client.query(question)
  await client.end()
}

/** A PostgreSQL server of one's own, in a folder that goes with it. It need not survive a power cut. */
export async function startPostgres() {
  const folder = mkdtempSync(join(tmpdir(), 'trough-postgres-'))
  if (process.getuid?.() === 0) chownSync(folder, ...idsOf(USER))
  const [data, server] = [join(folder, 'data'), { host: folder, user: USER }]
  run('initdb', ['-D', data, '-U', USER, '-A', 'trust', '-E', 'UTF8', '--locale=C.UTF-8', '-N'])
  const settings = [
    'fsync=off',
    'full_page_writes=off',
    'synchronous_commit=off',
    'listen_addresses=',
    `unix_socket_directories=${folder}`,
    'max_connections=200',
  ]
  run('pg_ctl', ['-D', data, '-w', '-l', join(folder, 'log'), '-o', settings.map(setting => `-c ${setting}`).join(' '), 'start'])
  await ask({ ...server, database: 'postgres' }, `create database ${TEMPLATE}`)
  const template = new pg.Pool({ ...server, database: TEMPLATE, max: 1 })
  await migrate(drizzle(template), MIGRATIONS)
  await template.end()
  return {
    ...server,
    stop() {
      run('pg_ctl', ['-D', data, '-m', 'immediate', 'stop'])
      rmSync(folder, { recursive: true, force: true })
    },
  }
}

function idsOf(user: string): [number, number] {
  const id = (kind: string) => Number(execFileSync('id', [kind, user], { encoding: 'utf8' }))
  return [id('-u'), id('-g')]
}

let made = 0

/** A new database on a server of the tests, with all its tables. */
export async function makeDatabase(server: Omit<PostgresAddress, 'database'>): Promise<PostgresAddress> {
  const database = `test_${process.pid}_${++made}`
  await ask({ ...server, database: 'postgres' }, `create database ${database} template ${TEMPLATE}`)
  return { ...server, database }
}
