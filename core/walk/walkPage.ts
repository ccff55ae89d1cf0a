import { answers } from './checks/answers'
import { dateNamed } from './checks/dateNamed'
import { daysPast, fieldLinks, sharedFile, unlisted } from './checks/entries'
import { emptyEntries } from './checks/emptyEntries'
import { fileNames } from './checks/fileNames'
import { fits } from './checks/fits'
import { gatedMenu, gates } from './checks/gates'
import { ghosts } from './checks/ghosts'
import { headingOrder } from './checks/headingOrder'
import { insecure } from './checks/insecure'
import { leadsNowhere } from './checks/leadsNowhere'
import { moved, outsideAnswers } from './checks/outsideLinks'
import { ownAddress } from './checks/ownAddress'
import { pictureWords } from './checks/pictureWords'
import { placeholders } from './checks/strayPlaceholders'
import { readable } from './checks/readable'
import { sameWords } from './checks/sameWords'
import { sizeShown } from './checks/sizeShown'
import { breaksOff, fallenSilent } from './checks/uptake'
import { typeNamed } from './checks/typeNamed'
import { vague } from './checks/vague'
import type { Check } from './check'
import type { CheckWords, Finding, Found } from './finding'
import type { WalkFacts } from './facts'
import { drawnOn, seenOn } from './seen'

/** All checks, the dearest first; a new one is added here. */
const CHECKS: readonly Check[] = [
  leadsNowhere,
  gates,
  answers,
  ownAddress,
  dateNamed,
  typeNamed,
  placeholders,
  sameWords,
  outsideAnswers,
  sharedFile,
  fieldLinks,
  readable,
  vague,
  gatedMenu,
  fallenSilent,
  breaksOff,
  fits,
  unlisted,
  pictureWords,
  headingOrder,
  ghosts,
  emptyEntries,
  daysPast,
  sizeShown,
  insecure,
  moved,
  fileNames,
]

export const CHECK_WORDS: readonly CheckWords[] = CHECKS.map(({ name, cost, title, why }) => ({ name, cost, title, why }))

/** A finding of a page, before it is known on which side of it it is, and whether it is left. */
export type PageFinding = Found & Pick<Finding, 'key' | 'check' | 'cost' | 'drawn'>

/** The same for as long as the fault is the same, whatever stands around it; a file's name is one fault wherever it is placed. */
const keyOf = ({ name }: Check, pageId: string, { placement = '', detail, mend }: Found): string =>
  (mend?.kind === 'rename' ? [name, detail] : [name, pageId, placement, detail]).join(' ').slice(0, 200)

/** What each check in turn finds on one page. */
export function* walkByChecks(facts: WalkFacts): Generator<PageFinding[]> {
  const seen = seenOn(facts)
  const drawn = drawnOn(facts.document)
  for (const check of CHECKS)
    yield check.look(facts, seen).map(found => ({
      ...found,
      check: check.name,
      cost: check.cost,
      key: keyOf(check, facts.pageId, found),
      drawn: found.placement === undefined ? undefined : drawn.get(found.placement),
    }))
}

/** What all checks find on one page. */
export const walkPage = (facts: WalkFacts): PageFinding[] => [...walkByChecks(facts)].flat()
