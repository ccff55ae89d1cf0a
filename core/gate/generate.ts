const CONSONANTS = 'bdfghjkmnprstvz'
const VOWELS = 'aeiou'

/**
 * A password that can be told on the telephone: three groups of letters and one of digits, without any that are taken for others.
 * About 46 bits, which the limits on guessing make more than enough.
 *
 * @param random a whole number below the one given, each as likely as any other
 */
export function easyPassword(random: (below: number) => number): string {
  const letter = (letters: string) => letters[random(letters.length)]!
  const syllables = () => Array.from({ length: 2 }, () => letter(CONSONANTS) + letter(VOWELS)).join('')
  const digits = Array.from({ length: 3 }, () => String(2 + random(8))).join('')
  return [syllables(), syllables(), syllables(), digits].join('-')
}
