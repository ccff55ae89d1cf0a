import { createSeal } from '../gates/seal'

/** How long a form can be sent after it was made, and, where robots are kept out, how soon after it, in milliseconds. */
const LATEST = 4 * 60 * 60 * 1000
const SOONEST = 800

/** Forms that were made here say so, and when: who sends one without having seen it is no visitor. */
export function createFormSeal(secret: string, now: () => number = Date.now) {
  const { seal, open } = createSeal(secret, 'forms')
  return {
    make: (gate: string): string => seal(`${gate} ${now()}`),

    /** Whether a form of this gate was made here, and not too long ago. @param slowly nor faster than anybody can write */
    isGood(gate: string, sealed: string, slowly: boolean): boolean {
      const [of, made] = (open(sealed) ?? '').split(' ')
      const age = now() - Number(made)
      return of === gate && age >= (slowly ? SOONEST : 0) && age <= LATEST
    },
  }
}
