import { dateInName } from '../files/nameAdvice'
import type { ComparedEdition, Doubt } from './comparison'
import type { TextComparison } from './compareTexts'

/** Less than this share of the pages, or where there are none of the bytes, looks like a part of it. */
const FAR_SMALLER = { pages: 0.5, bytes: 0.2 }
/** Two editions of one document share most of their words; two documents of one shop about a quarter. */
const LITTLE = 0.35

/** The date of an edition: that in its name, or else the document's own. */
const dateOf = ({ fileName, facts }: ComparedEdition) => dateInName(fileName) ?? facts.dated

function isFarSmaller(now: ComparedEdition, next: ComparedEdition): boolean {
  if (now.facts.pages && next.facts.pages) return next.facts.pages < now.facts.pages * FAR_SMALLER.pages
  return next.size < now.size * FAR_SMALLER.bytes
}

/** What makes an edition look like the wrong document. */
export function doubtsAbout(now: ComparedEdition, next: ComparedEdition, texts: TextComparison | undefined): Doubt[] {
  if (now.sha256 === next.sha256) return ['same-bytes']
  const [was, is] = [dateOf(now), dateOf(next)]
  const precision = Math.min(was?.length ?? 0, is?.length ?? 0)
  const found: [Doubt, boolean][] = [
    ['other-type', now.mediaType !== next.mediaType],
    ['far-smaller', isFarSmaller(now, next)],
    ['little-in-common', !!texts && texts.inCommon < LITTLE],
    ['older', precision > 0 && is!.slice(0, precision) < was!.slice(0, precision)],
  ]
  return found.flatMap(([doubt, holds]) => (holds ? [doubt] : []))
}
