import { secondLineOf, type Appearance } from './appearance'

/** How wide words are, in CSS pixels. */
export type Measure = (words: string, size: number, weight: number) => number

/** Between the two ends of one line, against the label's size. */
const ENDS_GAP = 0.5

/** How wide a button has to be for label and second line to stand on one line each, in CSS pixels. */
export function widthNeeded(appearance: Appearance, label: string, note: string, measure: Measure): number {
  const { padding, border, arrange, icon, size, weight } = appearance
  const line = secondLineOf(appearance)
  const [first, second] = [measure(label, size, weight), note ? measure(note, line.size, line.weight) : 0]
  const words = arrange === 'ends' && note ? first + ENDS_GAP * size + second : Math.max(first, second)
  const inner = !icon ? words : icon.place === 'above' ? Math.max(words, icon.size) : words + icon.gap + icon.size
  return Math.ceil(inner + 2 * padding.x + (border.sides === 'all' ? 2 * border.width : 0))
}
