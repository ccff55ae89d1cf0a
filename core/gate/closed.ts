import { VisitorProblem } from '../language/visitorProblem'

/** Why somebody does not get through a gate: they have not asked yet, it is too early or too late for anybody, or all is taken. */
export type Why = 'asked' | 'early' | 'late' | 'usedUp'

/** What somebody wants stands behind a gate that they have not passed. */
export class GateClosed extends VisitorProblem {
  constructor(
    /** the one they are asked at */
    readonly gate: string,
    readonly why: Why,
    /** identity of the file or page they want */
    readonly wanted?: string,
  ) {
    super(403, 'closed')
  }
}
