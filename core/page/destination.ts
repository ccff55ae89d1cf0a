import { opensInBrowser } from '../files/mediaType'
import type { GateKind } from '../gate/gate'
import { fileHref, pageHref, signpostHref } from './href'
import { dialled } from './outsideAddress'
import { seeHref } from '../see/seeAddress'
import type { TargetFacts } from './placeholders'
import type { Action, Target } from './schema'

/** What is known of pages, files and signposts that targets can be. */
export interface TargetKnowledge {
  /** a file that is there for visitors */
  file: (id: string) => TargetFacts | undefined
  /** a page that is live */
  page: (id: string) => { slug: string; title: string; asks?: GateKind } | undefined
  /** an entry of a catalogue that has a page of its own, by where that is */
  entry: (id: string) => { slug: string; title: string; asks?: GateKind } | undefined
  /** a signpost, wherever it points; `file` is the identity of what it points at, null where that is nothing */
  signpost: (id: string) => { name: string; title: string; file: string | null } | undefined
}

/** Where a placement leads. */
export interface Destination {
  /** what it is called: the words of a button without a label */
  title: string
  /** the file, where it is one */
  file?: TargetFacts
  /** what is asked there first */
  asks?: GateKind
  /** what a click can do there, the usual one first */
  actions: readonly Action[]
  href: (action: Action, placement: string) => string
}

const PLACES: readonly Action[] = ['here', 'tab']
const FILES: readonly Action[] = ['tab', 'here', 'save']
/** Browsers must not show it. */
const SAVED: readonly Action[] = ['save']
/** Its page lets visitors look at it first. */
const SEEN: readonly Action[] = ['see']
/** Another program takes over; there is nothing to show. */
const HANDED_OVER: readonly Action[] = ['here']

export const fileDestination = (file: TargetFacts): Destination => ({
  title: file.title,
  file,
  asks: file.asks,
  actions: [...(opensInBrowser(file.mediaType) ? FILES : SAVED), ...(file.see ? SEEN : [])],
  href: (action, placement) => (action === 'see' ? seeHref(file.handle, { at: placement }) : fileHref(file, action, placement)),
})

/** Where a target leads now; undefined where visitors find nothing there. */
export function destinationOf(target: Target | null, known: TargetKnowledge): Destination | undefined {
  switch (target?.kind) {
    case 'file': {
      const file = known.file(target.id)
      return file && fileDestination(file)
    }
    case 'page': {
      const page = known.page(target.id)
      return page && { title: page.title, asks: page.asks, actions: PLACES, href: () => pageHref(page.slug) }
    }
    case 'entry': {
      const entry = known.entry(target.id)
      return entry && { title: entry.title, asks: entry.asks, actions: PLACES, href: () => pageHref(entry.slug) }
    }
    case 'signpost': {
      const signpost = known.signpost(target.id)
      const file = signpost?.file ? known.file(signpost.file) : undefined
      // It is called as what was placed, and gives what is there now.
      return (
        signpost &&
        file && {
          ...fileDestination(file),
          title: signpost.title,
          href: (action, placement) =>
            action === 'see' ? seeHref(file.handle, { at: placement }) : signpostHref(signpost.name, action, placement),
        }
      )
    }
    case 'address':
      return { title: target.href.replace(/^https?:\/\/(?:www\.)?/, '').replace(/\/$/, ''), actions: PLACES, href: () => target.href }
    case 'email':
      return { title: target.address, actions: HANDED_OVER, href: () => `mailto:${encodeURI(target.address)}` }
    case 'phone':
      return { title: target.number, actions: HANDED_OVER, href: () => `tel:${dialled(target.number)}` }
    // Where it is laid out for all entries there is none yet.
    case 'field':
    case undefined:
      return undefined
  }
}

/** What a click really does: what was asked for, or what there is where that cannot be. */
export const effectiveAction = (action: Action, destination: Pick<Destination, 'actions'> | undefined): Action =>
  !destination || destination.actions.includes(action) ? action : destination.actions[0]!
