import type { Catalogue } from '../catalogue/catalogue'
import type { LiveEntry } from '../catalogue/entry'
import type { Field } from '../catalogue/field'
import type { Condition } from '../catalogue/listAttrs'
import type { Speech } from '../language/speech'
import type { Appearance } from '../look/appearance'
import type { Measure } from '../look/fit'
import type { Palette } from '../look/palette'
import type { TargetKnowledge } from '../page/destination'
import type { TargetFacts } from '../page/placeholders'
import type { PageDocument, Reference, Target } from '../page/schema'

/** What an anonymous visitor was answered. */
export interface Answer {
  /** of HTTP; 0 where no answer came */
  status: number
  mediaType: string
  /** bytes */
  size: number
  /** whether the bytes are those that were put in; undefined where they were not read this time */
  whole?: boolean
}

/** What an address elsewhere answered. */
export interface OutsideAnswer {
  /** of HTTP; 0 where no answer came */
  status: number
  /** it lies where visitors cannot reach it */
  private?: boolean
  /** where it has moved for good */
  movedTo?: string
}

/** A file as the walk knows it. */
export interface WalkedFile extends TargetFacts {
  /** the date it carries in its name or in itself, ISO 8601 to the day, month or year; undefined where there is none */
  dated?: string
  /** a better name, where its own misleads */
  betterName?: { fileName: string; reason: string }
  /** undefined where nobody asked */
  answer?: Answer
}

/** A gate as the walk knows it. */
export interface WalkedGate {
  id: string
  name: string
  /** why nobody gets through */
  closed?: string
  /** nobody learns what is behind it */
  hidden: boolean
}

/** A catalogue as the walk knows it. */
export interface WalkedCatalogue {
  id: string
  one: string
  /** identity of what its entries are laid out in; null where they have no pages */
  layout: string | null
  type: Catalogue['type']
  fields: Field[]
  /** those that visitors see */
  entries: LiveEntry[]
  /** what entries must be like to stand in its lists, one for each that is on a live page */
  lists: Condition[][]
  /** entries that something on a live page leads to by itself */
  led: ReadonlySet<string>
}

/** How often a button or link was used, around the day its page went live anew. */
export interface Uptake {
  /** in the four weeks before */
  before: number
  since: number
  /** ISO 8601 */
  day: string
}

/** Downloads of a file in the last four weeks. */
export interface Arrivals {
  broken: number
  taken: number
}

/** All that the checks of one page need, gathered beforehand. */
export interface WalkFacts {
  pageId: string
  /** it stands above or below what is on each page */
  edge: boolean
  document: PageDocument
  /** how the site speaks to its visitors */
  speech: Speech
  /** a file that is there for visitors */
  file: (id: string) => WalkedFile | undefined
  /** a page that is live */
  page: TargetKnowledge['page']
  /** an entry of a catalogue that has a page of its own */
  entry: TargetKnowledge['entry']
  /** undefined where it is gone */
  catalogue: (id: string) => WalkedCatalogue | undefined
  /** the one whose entries are laid out on this page */
  ownCatalogue: WalkedCatalogue | undefined
  /** ISO 8601 */
  today: string
  signpost: (id: string) => (ReturnType<TargetKnowledge['signpost']> & { /** undefined where nobody asked */ answer?: Answer }) | undefined
  /** the gate that is asked first at something; undefined where it is open */
  gate: (thing: { kind: 'file' | 'page'; id: string }) => WalkedGate | undefined
  /** identity of the gate the page itself stands behind */
  ownGate: string | null
  /** what lies in the bin, or is not live, by its identity: what it is called */
  away: (reference: Reference) => string | undefined
  /**
   * the number of the newest edition visitors could get of a file whose current one was withdrawn; undefined where there is none, or it
   * was not
   */
  fallback: (fileId: string) => number | undefined
  /** whether visitors find something there */
  reachable: (reference: Reference) => boolean
  /**
   * what an address is that leads to this site, by a host it has now or had: `nothing` where nothing is there, undefined where it is
   * elsewhere
   */
  ownPlace: (href: string) => { target: Target; title: string } | 'nothing' | undefined
  /** a file whose name says what these words say, if there is just one */
  namesake: (words: string) => { id: string; title: string } | undefined
  /** colours on a plain background */
  palette: Palette
  /** those on dark screens; null where they are the same */
  dark: Palette | null
  look: (id: string) => Appearance | undefined
  /** in the typeface of buttons; undefined where that cannot be measured */
  measure?: Measure
  /** undefined where it cannot be said */
  uptake: (placement: string) => Uptake | undefined
  /** undefined where none broke off */
  arrivals: (fileId: string) => Arrivals | undefined
  /** what an address elsewhere answered; undefined where nobody asked */
  outside: (href: string) => OutsideAnswer | undefined
}
