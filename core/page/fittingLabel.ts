import { outdatedIn, redated } from '../walk/dateWords'

/** What a label may say of that to which it leads. */
export interface Spoken {
  title: string
  /** ISO 8601, to the day, month or year */
  dated?: string
}

/**
 * The label that fits what a button leads to now; undefined where it says nothing that no longer holds.
 *
 * @param before what it led to when the label was written
 */
export function fittingLabel(label: string, now: Spoken, before?: Spoken): string | undefined {
  const written = label.trim()
  if (!written) return undefined
  if (before && written === before.title && now.title !== written) return now.title
  if (!now.dated) return undefined
  return (before?.dated && redated(written, before.dated, now.dated)) || outdatedIn(written, now.dated)?.mended
}
