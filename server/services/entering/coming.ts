import { z } from 'zod'
import type { Admitted } from '../../../core/gate/admission'
import { GATE_FIELDS, type GateFault } from '../../../core/gate/gatePage'
import type { KnownGate } from '../gates/standing'
import type { Made } from '../published/packed'

/** What a visitor is answered at a gate: a page, or the way on, with a pass for it where they have got through. */
export type Entered = { status: number; made: Made } | { to: string; cookie?: string }

/** Who is at a gate. */
export interface Comer {
  address: string
  /** they came by https */
  secure: boolean
  /** scheme and host they came to, for links in messages where the site has no address of its own yet */
  origin: string
}

/** Somebody at a gate that is open now, with what they sent; what everybody has to fill in is there. */
export interface Coming {
  gate: KnownGate
  comer: Comer
  form: URLSearchParams
  /** what they wrote and agreed to */
  given: Admitted
  /** where they go on to, and what that is called */
  to: string
  title: string
  /** The form once more, with what was wrong. */
  say: (fault: GateFault, wrong?: readonly string[]) => Promise<Entered>
}

/** Milliseconds in an hour: passes are given for so many. */
const HOUR = 60 * 60 * 1000

/** Until when a pass of a gate holds that is given now. */
export const passUntil = ({ rule }: KnownGate, now: number): number => now + rule.passHours * HOUR

const emailSchema = z.email().max(254).toLowerCase()

/** The e-mail address in a form; undefined where it is none. */
export const emailIn = (form: URLSearchParams): string | undefined => emailSchema.safeParse(form.get(GATE_FIELDS.email)?.trim() ?? '').data
