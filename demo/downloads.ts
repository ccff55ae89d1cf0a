import { fileIds, placementsOf } from '../core/page/targets'
import type { CountedDownload } from '../core/tally/merge'
import { NO_PARTICULARS, type Particulars } from '../core/tally/particulars'
import { isBuiltIn } from '../core/gate/gate'
import type { Occasion } from '../core/tally/occasions'
import { dailyCounts } from '../server/db/schema'
import { contactQuerySchema } from '../core/contacts/contact'
import { guestQuerySchema } from '../core/guests/guest'
import { passOf } from '../server/services/contacts/contacts'
import { passOfGuest } from '../server/services/guests/guests'
import { insertDownloads } from '../server/services/tally/tally'
import type { Trough } from '../server/trough'
import { seeded } from './random'

const DAY = 86_400_000
const DAYS = 730
/** Rows that are written at once. */
const BATCH = 500

type Random = () => number
/** Milliseconds by lines of 0.4 to 12 megabytes a second. */
const tookFor = (random: Random, size: number) => 20 + Math.round(size / (400 + 11_600 * random() ** 2))
/** One of several, each as often as its weight says. */
function pick<Value>(random: Random, choices: readonly (readonly [Value, number])[]): Value {
  let left = random() * choices.reduce((sum, [, weight]) => sum + weight, 0)
  return (choices.find(([, weight]) => (left -= weight) < 0) ?? choices.at(-1)!)[0]
}

/** Weights of the months: classes begin in January and September, and nobody glazes in August. */
const MONTHS = [1.5, 1.1, 1, 0.9, 0.9, 0.8, 0.7, 0.5, 1.6, 1.2, 1.4, 1]
const WEEKDAYS = [0.6, 1.2, 1.1, 1, 1, 0.9, 0.8]
/** Of the day, from midnight on. */
const HOURS = [1, 0, 0, 0, 0, 1, 2, 4, 8, 11, 12, 11, 9, 9, 10, 10, 9, 8, 9, 12, 13, 10, 6, 3].map(
  (weight, hour) => [hour, weight] as const,
)
const COUNTRIES: (readonly [string, number])[] = [
  ['GB', 74],
  ['IE', 8],
  ['DE', 4],
  ['FR', 4],
  ['NL', 3],
  ['US', 4],
  ['AU', 1],
  ['', 2],
]
const LANGUAGES: Record<string, string> = { DE: 'de', FR: 'fr', NL: 'nl' }
const SITES: (readonly [[site: string, path: string], number])[] = [
  [['', ''], 70],
  [['kilnclub.example', '/suppliers'], 8],
  [['potters-forum.example', ''], 7],
  [['search.example', ''], 12],
  [['claycourses.example', '/autumn'], 3],
]
const DEVICES: (readonly [[device: string, browser: string, system: string], number])[] = [
  [['phone', 'Chrome', 'Android'], 30],
  [['phone', 'Safari', 'iOS'], 18],
  [['tablet', 'Safari', 'iOS'], 6],
  [['computer', 'Firefox', 'Windows'], 14],
  [['computer', 'Chrome', 'Windows'], 20],
  [['computer', 'Safari', 'macOS'], 10],
  [['', '', ''], 2],
]

/** How many take the price list by a letter to customers: on the first Tuesday of a month, when it goes out, and the days after. */
const LETTER = [34, 15, 7, 3]
const firstTuesday = (day: Date) => 1 + ((9 - new Date(Date.UTC(day.getUTCFullYear(), day.getUTCMonth(), 1)).getUTCDay()) % 7)

/** Who came, from where and with what. */
function visitor(random: Random, page: string, campaign: string): Particulars {
  const [[referrer, referrerPath], country, [device, browser, system]] = [
    pick(random, SITES),
    pick(random, COUNTRIES),
    pick(random, DEVICES),
  ]
  const language = LANGUAGES[country] ?? 'en'
  // By a button of a page they come from that page; where a letter or another site leads to the file itself there is none.
  const straight = campaign !== '' || referrer !== ''
  const told = straight ? { campaign, referrer, referrerPath } : { page }
  return { ...NO_PARTICULARS, ...told, country, device, browser, system, language }
}

/** What happened besides, on each of the last days: pages seen, files looked at, robots, and what did not work. */
async function addOccasions(trough: Trough, random: Random): Promise<void> {
  const { database, pages, library, bundles } = trough
  const files = await library.all()
  const named = (part: string) => files.find(({ title }) => title.includes(part))!.id
  const sheets = files.find(({ bundle }) => bundle)!.id
  const { members = [] } = await bundles.laidOut(sheets)
  const rows: (typeof dailyCounts.$inferInsert)[] = []
  const today = new Date()
  const live = (await pages.list()).filter(({ edge, published }) => !edge && published !== null)
  for (let ago = DAYS; ago >= 0; ago--) {
    const date = new Date(today.getTime() - ago * DAY)
    const day = date.toISOString().slice(0, 10)
    const weight = MONTHS[date.getUTCMonth()]! * WEEKDAYS[date.getUTCDay()]! * (0.6 + 0.6 * (1 - ago / DAYS))
    const add = (what: Occasion, of: string, many: number, detail = '') => {
      // A few a day: most days have none of what is rare.
      const count = Math.floor(many * weight + random())
      if (count > 0) rows.push({ day, what, of, detail, count })
    }
    for (const { id, slug } of live) add('seen', id, (slug === '' ? 38 : 17) * (0.8 + random() * 0.4))
    add('looked', named('K60 kiln manual'), 1.6)
    add('looked', named('Price list'), 2.1)
    add('robot', named('Price list'), 1.2)
    add('broken', named('K100 kiln manual'), 0.05, `${Math.floor(random() * 10)}`)
    add('missing', '/files/price-list-2024.pdf', 0.12, 'potters-forum.example')
    add('missing', '/catalogue', 0.06)
    add('unfound', 'porcelain slip', 0.08)
    add('unfound', 'raku', 0.05)
    for (const id of members) add('bundled', id, 0.2, sheets)
    for (const file of files) if (file.gate !== null && !isBuiltIn(file.gate)) add('stopped', file.id, 0.3, file.gate)
  }
  for (let from = 0; from < rows.length; from += BATCH) await database.insert(dailyCounts).values(rows.slice(from, from + BATCH))
}

/** What people took whom a gate knew, in the last months: those who left an address, guests by name, and who was sent a link. */
async function byKnownPeople({ contacts, guests, library, personalLinks }: Trough, random: Random): Promise<CountedDownload[]> {
  const files = await library.all()
  const named = (part: string) => files.find(({ title }) => title.includes(part))!
  const left = (await contacts.list(contactQuerySchema.parse({}))).items.map(({ id }) => passOf(id))
  const school = (await guests.list(guestQuerySchema.parse({}))).items.map(({ id }) => passOfGuest(id))
  const form = named('Trade account form')
  const [link] = await personalLinks.list(form.id)
  const times = (many: number, who: readonly string[], what: string) =>
    Array.from({ length: many }, () => ({ file: named(what), told: { person: who[Math.floor(random() * who.length)]! } }))
  const taken = [...times(14, left, 'Throwing a first bowl'), ...times(5, school, 'Hollow Lane'), { file: form, told: { link: link!.id } }]
  return taken.map(({ file: { id, edition, size }, told }) => {
    const inPieces = random() < 0.2
    return {
      file: id,
      edition,
      placement: undefined,
      at: Math.floor((Date.now() - DAY * (1 + random() * 27)) / 1000) * 1000,
      bytes: size,
      course: inPieces ? 'pieces' : 'whole',
      took: tookFor(random, size) * (inPieces ? 40 : 1),
      told: { ...visitor(random, '', ''), referrer: '', referrerPath: '', ...told },
      count: 1,
    }
  })
}

/** Two years of invented downloads, in their order: seasons, a letter to customers each month, and new editions that are taken up. */
export async function addDownloads(trough: Trough): Promise<void> {
  const { database, pages, library } = trough
  const random = seeded(11)
  const places: (readonly [{ page: string; placement: string; fileId: string; editions: number; size: number }, number])[] = []
  for (const { id: page } of await pages.list()) {
    const { draft } = await pages.get(page)
    for (const { id: placement, kind, targets } of placementsOf(draft))
      for (const fileId of kind === 'picture' ? [] : fileIds(targets)) {
        const { edition, size } = await library.get(fileId)
        places.push([{ page, placement, fileId, editions: edition, size }, 0.1 + random() ** 3])
      }
  }
  const priceList = places.find(([{ editions }]) => editions > 1)?.[0]
  const today = new Date()
  today.setUTCHours(0, 0, 0, 0)
  const found: CountedDownload[] = []
  for (let ago = DAYS; ago >= 0; ago--) {
    const day = new Date(today.getTime() - ago * DAY)
    const grown = 0.6 + 0.6 * (1 - ago / DAYS)
    const many = 14 * MONTHS[day.getUTCMonth()]! * WEEKDAYS[day.getUTCDay()]! * grown * (0.7 + random() * 0.6)
    const byLetters = LETTER[day.getUTCDate() - firstTuesday(day)] ?? 0
    const letter = `newsletter-${day.toISOString().slice(0, 7)}`
    for (let one = 0; one < many + byLetters; one++) {
      const byLetter = priceList !== undefined && one >= many
      const { page, placement, fileId, editions, size } = byLetter ? priceList : pick(random, places)
      const told = visitor(random, page, byLetter ? letter : '')
      const at = day.getTime() + pick(random, HOURS) * 3_600_000 + Math.floor(random() * 3600) * 1000
      // Each edition had its time; the last one is what there is now.
      const edition = Math.min(editions, 1 + Math.floor((1 - ago / (DAYS + 1)) * editions))
      if (at < Date.now() - 60_000)
        found.push({
          file: fileId,
          edition,
          placement: told.page ? placement : undefined,
          at,
          bytes: size,
          course: 'whole',
          took: tookFor(random, size),
          told,
          count: 1,
        })
    }
  }
  found.push(...(await byKnownPeople(trough, random)))
  found.sort((one, other) => one.at - other.at)
  for (let from = 0; from < found.length; from += BATCH)
    await database.transaction(tx => insertDownloads(tx, found.slice(from, from + BATCH)))
  await addOccasions(trough, random)
}
