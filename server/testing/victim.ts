import { randomBytes } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { crc32 } from 'node:zlib'
import { newId } from '../../core/id'
import { newButton } from '../../core/page/insert'
import { buttonsIn } from '../../core/page/buttonLooks'
import { wallTimeAt } from '../../core/timetable/wallTime'
import { openTrough } from '../trough'
import { sha256 } from './digest'
import type { Ledger, Word } from './ledger'

/**
 * A process that is killed: checks that all that was acknowledged is there, then uploads, replaces, deletes, publishes
 * backs up and does what is set for a time until it dies, saying what it begins and what is done.
 *
 * node victim.mjs <data folder> <ledger> <backup folder>
 */
const [data, ledgerPath, backup] = process.argv.slice(2) as [string, string, string]
const say = (word: Word) => new Promise<void>(resolve => process.stdout.write(`${JSON.stringify(word)}\n`, () => resolve()))
const ledger = JSON.parse(readFileSync(ledgerPath, 'utf8')) as Ledger

const MINUTE = 60_000
/** Times are set to the minute: the clock is put on, so that they come. */
let ahead = 0
const trough = await openTrough({ data, now: () => Date.now() + ahead })
const { library, pages, signposts, replacing, timetable, site, verifying, backups, uploads } = trough
await uploads.recover(new Date())
await library.setStraysAside()
await library.collectBytes()

async function check(): Promise<string[]> {
  const wrong: string[] = []
  for (const [id, states] of Object.entries(ledger.files)) {
    const file = await library.get(id).catch(() => undefined)
    const state = file === undefined ? 'gone' : `${file.sha256} ${file.deleted ? 'binned' : 'there'}`
    if (!states.includes(state)) wrong.push(`${id} is "${state}", not ${states.join(' or ')}`)
  }
  if (ledger.page) {
    const live = (await pages.live('victim'))?.title ?? ''
    if (!ledger.page.includes(live)) wrong.push(`the page is "${live}", not ${ledger.page.join(' or ')}`)
  }
  if (ledger.led.length) wrong.push(...(await checkLed()))
  if (ledger.set) wrong.push(...(await checkSet(ledger.set)))
  await verifying.start()
  await verifying.ended()
  const { state, error, findings } = await verifying.state()
  return [
    ...wrong,
    ...(state === 'done' ? [] : [`verify: ${state}, ${error}`]),
    ...findings.map(finding => `${finding.kind} ${finding.sha256} for ${finding.files.length} files`),
  ]
}
/** Whatever leads to one of two files leads to the same one. */
async function checkLed(): Promise<string[]> {
  const found = new Set<string | null>()
  for (const { id } of (await pages.list()).filter(page => page.slug.startsWith('led-'))) {
    const { draft, live } = await pages.get(id)
    for (const document of live ? [draft, live.document] : [draft])
      for (const { target } of buttonsIn(document)) found.add(target?.kind === 'file' ? target.id : null)
  }
  for (const { title, file } of await signposts.list()) if (title === 'Led') found.add(file)
  const [one, ...others] = [...found]
  if (others.length) return [`some places lead to ${one}, and others to ${others.join(' or ')}`]
  return found.size && !ledger.led.includes(one ?? 'nothing') ? [`all places lead to ${one}, not ${ledger.led.join(' or ')}`] : []
}

/** What was set has happened, or happens now that its time is over. */
async function checkSet({ file, number }: NonNullable<Ledger['set']>): Promise<string[]> {
  // The clock of the process that was killed may have been far ahead.
  ahead = 1_000_000 * MINUTE
  await timetable.run()
  ahead = 0
  const { edition } = await library.get(file)
  const left = (await timetable.list()).length
  return [
    ...(edition === number ? [] : [`edition ${number} was set to go live, and visitors get ${edition}`]),
    ...(left ? [`${left} things are set that are over`] : []),
  ]
}
await say({ checked: await check() })

async function put(editionOf?: string): Promise<void> {
  const bytes = randomBytes(2000 + Math.floor(Math.random() * 60_000))
  const path = join(data, 'incoming', `${newId()}.part`)
  await writeFile(path, bytes)
  const hash = sha256(bytes)
  if (editionOf) await say({ begins: { [editionOf]: `${hash} there` } })
  const { id } = await library.ingest({
    path,
    fileName: `file ${newId()}.bin`,
    size: bytes.length,
    sha256: hash,
    crc32: crc32(bytes),
    editionOf,
  })
  await say({ done: { [id]: `${hash} there` } })
  if (!editionOf) mine.push(id)
}

/** files of this process alone, so that no two loops act on one */
const mine: string[] = []
const takeOne = () => mine.splice(Math.floor(Math.random() * mine.length), 1)[0]

/** Leaves room for the other loops: the database answers without a turn of the event loop, and uploads and backups need many. */
const pause = () => new Promise(resolve => setTimeout(resolve, 50 + Math.random() * 200))

async function addAndReplace(): Promise<never> {
  for (;;) {
    await put()
    const id = takeOne()
    if (id) {
      await put(id)
      mine.push(id)
    }
  }
}

async function remove(): Promise<never> {
  for (;;) {
    const id = mine.length > 3 ? takeOne() : undefined
    if (!id) {
      await new Promise(resolve => setTimeout(resolve, 20))
      continue
    }
    const { sha256: hash } = await library.get(id)
    await say({ begins: { [id]: `${hash} binned` } })
    await library.remove({ files: [id], folders: [] })
    await say({ done: { [id]: `${hash} binned` } })
    if (Math.random() < 0.5) {
      await say({ begins: { [id]: 'gone' } })
      await library.emptyOldBin(new Date(Date.now() + 1000))
      await library.collectBytes()
      await say({ emptied: id })
    }
  }
}

async function publish(): Promise<never> {
  const known = (await pages.list()).find(page => page.slug === 'victim')
  const page = known ?? (await pages.create({ title: 'Victim', slug: 'victim' }))
  let { revision } = await pages.get(page.id)
  for (;;) {
    const title = `Version ${newId()}`
    await say({ beginsPage: title })
    const saved = await pages.saveDraft(page.id, {
      title,
      draft: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: title }] }] },
      revision,
    })
    revision = saved.revision
    await pages.publish(page.id)
    await say({ donePage: title })
    await pause()
  }
}

async function replaceEverywhere(): Promise<never> {
  const names = ['one.txt', 'other.txt']
  const files = (await library.all()).filter(file => names.includes(file.fileName))
  for (const name of names.filter(each => !files.some(file => file.fileName === each))) {
    const path = join(data, 'incoming', `${newId()}.part`)
    await writeFile(path, name)
    files.push(await library.ingest({ path, fileName: name, size: name.length, sha256: sha256(name), crc32: crc32(Buffer.from(name)) }))
  }
  const ids = files.map(file => file.id)
  const there = new Set((await pages.list()).map(page => page.slug))
  let at = ledger.led.at(-1) ?? ids[0]!
  await say({ beginsLed: at })
  for (const slug of ['led-1', 'led-2', 'led-3'].filter(each => !there.has(each))) {
    const draft = {
      type: 'doc' as const,
      content: [{ type: 'downloadButton' as const, attrs: newButton({ kind: 'file', id: at }, 'Led') }],
    }
    const page = await pages.create({ title: slug, slug }, { draft })
    await pages.publish(page.id)
  }
  if (!(await signposts.list()).some(({ title }) => title === 'Led')) await signposts.create({ title: 'Led', file: at })
  for (;;) {
    const uses = await library.uses(ids[0]!)
    at = uses.length ? ids[0]! : ids[1]!
    const to = at === ids[0] ? ids[1]! : ids[0]!
    await say({ beginsLed: to })
    await replacing.replace({ kind: 'file', id: at }, { kind: 'file', id: to })
    await say({ doneLed: to })
    await pause()
  }
}

async function setAndFire(): Promise<never> {
  const known = (await library.all()).find(file => file.fileName.startsWith('timed'))
  const path = () => join(data, 'incoming', `${newId()}.part`)
  const ingest = async (text: string, editionOf?: string) => {
    const to = path()
    await writeFile(to, text)
    return library.ingest({
      path: to,
      fileName: 'timed.txt',
      size: text.length,
      sha256: sha256(text),
      crc32: crc32(Buffer.from(text)),
      editionOf,
      waits: true,
    })
  }
  const file = known ?? (await ingest('timed one'))
  if ((await library.editions(file.id)).length < 2) await ingest('timed two', file.id)
  for (;;) {
    const number = 3 - (await library.get(file.id)).edition
    const soon = new Date(Date.now() + ahead + 2 * MINUTE)
    // Until it is known to be set, either may be.
    await say({ set: null })
    await timetable.set({ kind: 'edition', file: file.id, number }, wallTimeAt(soon, (await site.get()).timeZone))
    await say({ set: { file: file.id, number } })
    await pause()
    ahead += 3 * MINUTE
    await timetable.run()
    await pause()
  }
}

async function backUp(): Promise<never> {
  await new Promise(resolve => setTimeout(resolve, Math.random() * 600))
  for (;;) {
    const { made } = await backups.make(backup)
    await say({ backedUp: made })
    await new Promise(resolve => setTimeout(resolve, 200))
  }
}

await Promise.all([addAndReplace(), remove(), publish(), replaceEverywhere(), setAndFire(), backUp()])
