/** What a visitor has after getting through a gate. */
export interface Pass {
  gate: string
  /** which of the gate's times it was given in: all of an earlier one have ended */
  epoch: number
  /** tells one pass from another: what is counted for each is counted by it */
  id: string
  /** by what it was given: the identity of a password, contact or link */
  by: string
  /** milliseconds since 1970 */
  until: number
}

const FORM = /^1\.([a-z0-9]{1,40})\.(\d{1,9})\.([\w-]{1,64})\.([\w-]{0,64})\.(\d{1,16})$/

/** A pass as text, to be sealed. */
export const passText = ({ gate, epoch, id, by, until }: Pass): string => `1.${gate}.${epoch}.${id}.${by}.${until}`

/** The pass a text says; undefined where it says none. */
export function readPass(text: string): Pass | undefined {
  const [, gate, epoch, id, by, until] = FORM.exec(text) ?? []
  return gate === undefined ? undefined : { gate, epoch: Number(epoch), id: id!, by: by!, until: Number(until) }
}

/** What has to be known of a gate to say whether a pass holds. */
export interface PassFacts {
  id: string
  epoch: number
  /** what passes may have been given by; those by anything else have ended with it. Undefined where that is not kept */
  givers?: ReadonlySet<string>
}

/** What gave the passes by which the site looks at itself. */
export const OWN_GIVER = 'walk'

/** Whether a pass lets its bearer through a gate, as things are now. */
export const passHolds = (pass: Pass, { id, epoch, givers }: PassFacts, now: number): boolean =>
  pass.gate === id && pass.epoch === epoch && pass.until > now && (givers === undefined || givers.has(pass.by) || pass.by === OWN_GIVER)
