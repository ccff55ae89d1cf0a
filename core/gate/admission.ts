import type { Answers } from './fields'

/** What somebody wrote and agreed to at a gate, word for word as it stood there. */
export interface Admitted {
  answers: Answers
  /** the words beside the tick; empty where there were none */
  consent: string
  /** what was accepted: the text, or the file with the edition and bytes it had */
  terms?: { text: string; file?: { id: string; title: string; edition: number; sha256: string } }
}

/** What is kept of a guest until they come by the link they were sent. */
export interface AskedByName extends Admitted {
  /** where they go on to */
  to: string
}

/** What is kept of somebody until they have confirmed their address. */
export interface Asked extends Admitted {
  email: string
  /** where they go on to */
  to: string
}
