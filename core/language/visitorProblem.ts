import { Problem } from '../problem'
import type { Speech } from './speech'
import { WORDS, type WordKey } from './words/words'

/** What visitors may be told that they cannot have. */
type Said = Extract<WordKey, `${string}Title`> extends `${infer Name}Title` ? Name : never

/** A problem that visitors meet: it is told in the site's language. */
export class VisitorProblem extends Problem {
  /** @param said the words for it, `<said>Title` and `<said>Detail` of the list */
  constructor(
    status: number,
    readonly said: Said,
    extra: Record<string, unknown> = {},
  ) {
    super(status, WORDS.en[`${said}Title`], WORDS.en[`${said}Detail`], extra)
  }
}

/** Words for what has none of its own. */
const saidOf = (status: number): Said =>
  status === 404 ? 'nowhere' : status === 429 || status === 503 ? 'busy' : status < 500 ? 'refused' : 'fault'

/** What a visitor is told of a problem. What is meant for who works here is told in English, as it was written. */
export function told(problem: Problem, speech: Speech): { title: string; detail: string } {
  if (!(problem instanceof VisitorProblem) && speech.language === 'en') return problem
  const said = problem instanceof VisitorProblem ? problem.said : saidOf(problem.status)
  return { title: speech.say(`${said}Title`), detail: speech.say(`${said}Detail`) }
}
