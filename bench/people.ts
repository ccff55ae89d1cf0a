import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { readyRights } from '../core/rights/ready'
import { openDatabase } from '../server/db/connection'
import { makeHelper } from '../e2e/support/people'
import { ownerApi } from '../e2e/support/owner'
import { startServer } from '../e2e/support/server'
import { cookieOf } from '../e2e/support/upload'
import { makeBigLibrary } from './bigLibrary'
import { interleaved, p95 } from './measure'
import { inPace } from './pace'
import { report, reportPaced, sayEnd } from './report'

/** Lists of very many people, and what a helper's rights add to a list of the library; all by HTTP. */

const ROUNDS = 100
const GUESTS = 10_000
const GROUPS = 500
const CONTACTS = 100_000

/** Straight into the tables, since leaving a hundred thousand addresses would take an hour. */
async function fill(data: string): Promise<void> {
  const { db, close } = await openDatabase(join(data, 'db'))
  await db.execute(sql`insert into groups (id, name) select 'group' || n, 'Group ' || n from generate_series(1, ${GROUPS}::int) n`)
  await db.execute(
    sql`insert into guests (id, email, name, created) select 'guest' || n, 'guest' || n || '@wheel-' || n % 700 || '.example', 'Potter ' || n, now() - n * interval '1 minute' from generate_series(1, ${GUESTS}::int) n`,
  )
  await db.execute(
    sql`insert into group_members (group_id, guest_id) select 'group' || (1 + (n * k) % ${GROUPS}::int), 'guest' || n from generate_series(1, ${GUESTS}::int) n, generate_series(1, 3) k on conflict do nothing`,
  )
  await db.execute(
    sql`insert into contacts (id, email, created, confirmed) select 'contact' || n, 'left' || n || '@studio-' || n % 3000 || '.example', now() - n * interval '1 minute', case when n % 3 = 0 then now() end from generate_series(1, ${CONTACTS}::int) n`,
  )
  await db.execute(
    sql`insert into admissions (gate_name, pass, contact_id, given) select 'Guides', 'c-contact' || n, 'contact' || n, json_build_object('answers', json_build_array(json_build_object('label', 'Firm', 'value', 'Studio ' || n % 3000)), 'consent', '') from generate_series(1, ${CONTACTS}::int) n`,
  )
  await db.execute(
    sql`insert into journal (at, who, act, about) select now() - n * interval '1 minute', 'helper' || n % 20 || '@marlpit.example', 'POST /bundles', '' from generate_series(1, ${CONTACTS}::int) n`,
  )
  await db.execute(sql`analyze`)
  await close()
}

const folder = await mkdtemp(join(tmpdir(), 'trough-bench-people-'))
const data = join(folder, 'data')
await makeBigLibrary(data)
await fill(data)
const server = await startServer(data)
try {
  const owner = await cookieOf(server.url)
  const api = await ownerApi(server.url)
  const rule = { kind: 'people', groups: Array.from({ length: GROUPS }, (_, index) => `group${index + 1}`) }
  await api('/gates', { method: 'POST', json: { name: 'Everybody by name', rule } })
  const once = async (path: string, cookie: string): Promise<number> => {
    const start = performance.now()
    const answer = await fetch(`${server.url}/api${path}`, { headers: { cookie } })
    await answer.arrayBuffer()
    if (!answer.ok) throw new Error(`${answer.status} for ${path}`)
    return performance.now() - start
  }
  const times = async (pathOf: (round: number) => string) => {
    // A server that has just started is compiling still.
    for (let round = 0; round < 20; round++) await once(pathOf(round), owner)
    return inPace(ROUNDS, round => once(pathOf(round), owner))
  }
  const LISTS: [what: string, pathOf: (round: number) => string][] = [
    [`the newest of ${CONTACTS.toLocaleString('en')} contacts`, () => '/contacts?limit=50'],
    ['contacts, far down', round => `/contacts?limit=50&from=${round * 900}`],
    ['contacts by a part of an address', round => `/contacts?limit=50&q=studio-${round * 7}.`],
    ['confirmed contacts', () => '/contacts?limit=50&confirmed=yes'],
    [`the newest of ${GUESTS.toLocaleString('en')} guests`, () => '/guests?limit=50'],
    ['guests by a part of a name', round => `/guests?limit=50&q=potter ${round}`],
    ['guests of a group', round => `/guests?limit=50&group=group${round + 1}`],
    [`${GROUPS} groups`, () => '/groups'],
    ['gates, one with all guests', () => '/gates'],
    ['the log', () => '/journal?limit=50'],
    ['the log of one', round => `/journal?limit=50&who=helper${round % 20}@marlpit.example`],
  ]
  for (const [what, pathOf] of LISTS) reportPaced(`${what}, p95`, p95, await times(pathOf), 50)
  report('the log by words, p95', p95((await times(() => '/journal?limit=50&q=bundle')).times), 'ms')

  // A helper who sees half of the folders, against who sees all; both see 50 of what they ask for.
  const half = Array.from({ length: 200 }, (_, index) => `folder${index + 1}`)
  const { cookie } = await makeHelper(server.url, 'half@marlpit.example', readyRights('library', half))
  for (const [what, path] of [
    ['everything', '/files?limit=50'],
    ['by name', '/files?limit=50&q=winter'],
    ['one folder', '/files?limit=50&folder=folder7'],
  ] as const) {
    const rounds = await interleaved(ROUNDS, { helper: () => once(path, cookie), owner: () => once(path, owner) })
    report(`rights add to a list of 50,000 files, ${what}`, rounds.helper - rounds.owner, 'ms', { most: 5 })
  }
} finally {
  await server.remove()
  await rm(folder, { recursive: true, force: true })
}
process.exitCode = sayEnd()
