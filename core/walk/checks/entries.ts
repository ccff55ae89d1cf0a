import { isFileKind, type Field } from '../../catalogue/field'
import { meets } from '../../catalogue/list'
import { titleOf } from '../../catalogue/values'
import type { LiveEntry } from '../../catalogue/entry'
import { everyBlock } from '../../page/blocks'
import type { Check } from '../check'
import type { WalkedCatalogue, WalkFacts } from '../facts'
import type { Found } from '../finding'

/** Entries that are named; the others are counted. */
const NAMED = 3

/** Names of entries as they are told: the first of them, and how many more there are. */
export function namesOf(entries: Pick<LiveEntry, 'values'>[]): string {
  const all = entries.slice(0, NAMED).map(({ values }) => `“${titleOf(values)}”`)
  const more = entries.length - all.length
  return more ? `${all.join(', ')} and ${more} more` : all.join(', ')
}

/** Catalogues that are spoken of on this page: the one laid out on it, and those it lists whose entries have no pages. */
function spokenOf({ document, catalogue, ownCatalogue }: WalkFacts): WalkedCatalogue[] {
  const listed = [...everyBlock(document)].flatMap(block =>
    block.type === 'entryList' && block.attrs.catalogue !== null ? (catalogue(block.attrs.catalogue) ?? []) : [],
  )
  return [...new Set([...(ownCatalogue ? [ownCatalogue] : []), ...listed.filter(({ layout }) => !layout)])]
}

const eachOf =
  (find: (catalogue: WalkedCatalogue, facts: WalkFacts) => Found[]): Check['look'] =>
  facts =>
    spokenOf(facts).flatMap(catalogue => find(catalogue, facts))

/** As many entries may share a file by mistake; a paper that more of them have is meant for all. */
const MOST_SHARING = 3

/** Entries that hold the same file in a field in which nearly each of the others has its own. */
function shared(field: Field, entries: LiveEntry[]): LiveEntry[][] {
  const holders = new Map<string, LiveEntry[]>()
  for (const entry of entries) {
    const file = entry.values[field.id]
    if (typeof file === 'string') holders.set(file, [...(holders.get(file) ?? []), entry])
  }
  const all = [...holders.values()]
  const own = all.filter(those => those.length === 1).length
  const doubled = all.filter(those => those.length > 1)
  return doubled.every(those => those.length <= MOST_SHARING) && own > doubled.length * 2 ? doubled : []
}

/** A file that two entries have, where others have one each. */
export const sharedFile: Check = {
  name: 'shared-file',
  cost: 'misled',
  title: 'Two entries with one file',
  why: 'One of them most likely has the file of the other. Where it is right for both, leave the finding.',
  look: eachOf(({ fields, entries }) =>
    fields
      .filter(({ kind }) => isFileKind(kind) && (kind === 'file' || kind === 'picture'))
      .flatMap(field =>
        shared(field, entries).map(those => ({
          label: field.name,
          words: `${namesOf(those)} have the same “${field.name}”.`,
          detail: `${field.id} ${those.map(({ id }) => id).join(' ')}`,
        })),
      ),
  ),
}

/** Entries whose last day is over: of a catalogue of what takes place at a time. */
export const daysPast: Check = {
  name: 'days-past',
  cost: 'tidy',
  title: 'Entries whose days are over',
  why: 'Visitors plan by what has been. Give them their next days, take them from visitors, or set a time at which they leave by themselves.',
  look: eachOf(({ type, fields, entries, one }, { today }) => {
    if (type !== 'Event' && type !== 'Course') return []
    const days = fields.filter(({ kind }) => kind === 'date')
    const past = entries.filter(({ values }) => {
      const written = days.flatMap(({ id }) => (typeof values[id] === 'string' ? [values[id]] : []))
      return written.length > 0 && written.every(day => day < today)
    })
    return past.length
      ? [
          {
            label: one,
            words: `${past.length === 1 ? 'Over' : `${past.length} are over`}: ${namesOf(past)}.`,
            detail: past.map(({ id }) => id).join(' '),
          },
        ]
      : []
  }),
}

/** Addresses in fields that do not answer, or are not encrypted. */
export const fieldLinks: Check = {
  name: 'entry-links',
  cost: 'misled',
  title: 'Wrong addresses in fields of entries',
  why: 'Visitors leave your site and find an error there, or are warned by their browser.',
  look: eachOf(({ fields, entries }, { outside, ownPlace }) =>
    fields
      .filter(({ kind }) => kind === 'link')
      .flatMap(field => {
        const faults = entries.flatMap(entry => {
          const href = entry.values[field.id]
          if (typeof href !== 'string' || ownPlace(href)) return []
          const answer = outside(href)
          const fails = answer && !(answer.status >= 200 && answer.status < 400)
          return fails || href.toLowerCase().startsWith('http:') ? [{ entry, fails }] : []
        })
        const told = (those: LiveEntry[], what: string): Found[] =>
          those.length
            ? [
                {
                  label: field.name,
                  words: `“${field.name}” ${what}: ${namesOf(those)}.`,
                  detail: `${field.id} ${what} ${those.map(({ id }) => id).join(' ')}`,
                },
              ]
            : []
        return [
          ...told(
            faults.flatMap(({ entry, fails }) => (fails ? [entry] : [])),
            'does not answer',
          ),
          ...told(
            faults.flatMap(({ entry, fails }) => (fails ? [] : [entry])),
            'has no encryption',
          ),
        ]
      }),
  ),
}

/** Pages of entries that no list has, and nothing leads to. */
export const unlisted: Check = {
  name: 'unlisted-entries',
  cost: 'hard',
  title: 'Pages of entries that nothing leads to',
  why: 'They are there, and visitors come by them through search engines alone. List them on a page, or take them from visitors.',
  look({ ownCatalogue }) {
    if (!ownCatalogue) return []
    const { entries, lists, led, one } = ownCatalogue
    const alone = entries.filter(entry => !led.has(entry.id) && !lists.some(only => only.every(condition => meets(condition, entry))))
    if (!alone.length) return []
    const words = lists.length
      ? `No list has ${alone.length === 1 ? 'it' : 'them'}: ${namesOf(alone)}.`
      : `No page lists them: ${namesOf(alone)}.`
    return [{ label: one, words, detail: lists.length ? alone.map(({ id }) => id).join(' ') : 'no list' }]
  },
}
