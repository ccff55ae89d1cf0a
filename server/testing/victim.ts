import { randomBytes } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { crc32 } from 'node:zlib'
import { newId } from '../../core/id'
import { openTrough } from '../trough'
import { sha256 } from './digest'
import type { Ledger, Word } from './ledger'

/**
 * A process that is killed: checks that all that was acknowledged is there, then uploads, replaces, deletes, publishes
 * and backs up until it dies, saying what it begins and what is done.
 *
 * node victim.mjs <data folder> <ledger> <backup folder>
 */
const [data, ledgerPath, backup] = process.argv.slice(2) as [string, string, string]
const say = (word: Word) => new Promise<void>(resolve => process.stdout.write(`${JSON.stringify(word)}\n`, () => resolve()))
const ledger = JSON.parse(readFileSync(ledgerPath, 'utf8')) as Ledger

const trough = await openTrough({ data })
const { library, pages, verifying, backups, uploads } = trough
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
  await verifying.start()
  await verifying.ended()
  const { state, error, findings } = await verifying.state()
  return [...wrong, ...state === 'done' ? [] : [`verify: ${state}, ${error}`], ...findings.map(finding => `${finding.kind} ${finding.sha256} for ${finding.files.length} files`)]
}
await say({ checked: await check() })

async function put(editionOf?: string): Promise<void> {
  const bytes = randomBytes(2000 + Math.floor(Math.random() * 60_000))
  const path = join(data, 'incoming', `${newId()}.part`)
  await writeFile(path, bytes)
  const hash = sha256(bytes)
  if (editionOf) await say({ begins: { [editionOf]: `${hash} there` } })
  const { id } = await library.ingest({ path, fileName: `file ${newId()}.bin`, size: bytes.length, sha256: hash, crc32: crc32(bytes), editionOf })
  await say({ done: { [id]: `${hash} there` } })
  if (!editionOf) mine.push(id)
}

/** files of this process alone, so that no two loops act on one */
const mine: string[] = []
const takeOne = () => mine.splice(Math.floor(Math.random() * mine.length), 1)[0]

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
  const page = known ?? await pages.create({ title: 'Victim', slug: 'victim' })
  let { revision } = await pages.get(page.id)
  for (;;) {
    const title = `Version ${newId()}`
    await say({ beginsPage: title })
    const saved = await pages.saveDraft(page.id, { title, draft: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: title }] }] }, revision })
    revision = saved.revision
    await pages.publish(page.id)
    await say({ donePage: title })
    // The database answers without a turn of the loop: the others would never get one.
    await new Promise(resolve => setTimeout(resolve, 5))
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

await Promise.all([addAndReplace(), remove(), publish(), backUp()])
