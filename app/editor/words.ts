import type { Role } from '~~/core/look/colour'
import type { CheckedPart, State } from '~~/core/look/contrastCheck'
import type { ShelfFact, ShelfPart } from '~~/core/shelf/shown'

/** What the desk calls the choices of a page's blocks, in the order they are offered. */
export const ACTION_CHOICES = [
  ['tab', 'New tab'],
  ['here', 'This tab'],
  ['save', 'Save'],
  ['see', 'Look'],
] as const
export const ALIGN_CHOICES = [
  ['left', 'Left'],
  ['middle', 'Middle'],
  ['right', 'Right'],
] as const
export const TONE_CHOICES = [
  ['plain', 'Plain'],
  ['tint', 'Tinted'],
  ['deep', 'Deep'],
] as const
export const SPACE_CHOICES = [
  ['small', 'Little'],
  ['medium', 'Some'],
  ['large', 'Much'],
] as const
export const WIDTH_CHOICES = [
  ['text', 'As text'],
  ['wide', 'Wider'],
] as const
export const COUNT_CHOICES = [
  [2, '2'],
  [3, '3'],
  [4, '4'],
] as const
export const SHARE_CHOICES = [
  ['even', 'Alike'],
  ['first', 'First wider'],
  ['last', 'Last wider'],
] as const
export const ORDER_CHOICES = [
  ['title', 'By title'],
  ['newest', 'Newest'],
  ['own', 'Folder’s'],
] as const

export const BELOW_CHOICES = [
  ['no', 'Left out'],
  ['folded', 'Folded'],
  ['open', 'Open'],
] as const

export const FOUND_ORDER_CHOICES = ORDER_CHOICES.slice(0, 2)

export const LAYOUT_CHOICES = [
  ['lines', 'Lines'],
  ['table', 'Table'],
  ['compact', 'Small list'],
  ['tiles', 'Tiles'],
  ['cards', 'Cards'],
  ['pictures', 'Pictures'],
] as const
export const DENSITY_CHOICES = [
  ['close', 'Close'],
  ['even', 'Even'],
  ['airy', 'Airy'],
] as const
export const ICON_SIZE_CHOICES = [
  ['small', 'Small'],
  ['medium', 'Medium'],
  ['large', 'Large'],
] as const
export const SHELF_PART_WORDS: Record<ShelfPart, string> = {
  picture: 'Picture',
  icon: 'Icon',
  title: 'Title',
  new: 'Mark of what is new',
  facts: 'Facts',
  description: 'Description',
  look: 'Look inside',
  button: 'Download button',
}
export const SHELF_FACT_WORDS: Record<ShelfFact, string> = {
  type: 'Type',
  size: 'Size',
  date: 'Date',
  edition: 'Edition',
  pages: 'Pages',
  downloads: 'Downloads',
  tags: 'Tags',
}
export const PICTURE_CHOICES = [
  ['small', 'Small'],
  ['half', 'Half'],
  ['text', 'As text'],
  ['wide', 'Wider'],
] as const
export const PREVIEW_CHOICES = [
  [1280, 'Desktop'],
  [768, 'Tablet'],
  [390, 'Phone'],
] as const
export const FILL_CHOICES = [
  ['none', 'None'],
  ['plain', 'Plain'],
  ['gradient', 'Gradient'],
  ['picture', 'Picture'],
] as const
export const BUTTON_WIDTH_CHOICES = [
  ['fit', 'As its words'],
  ['fill', 'All there is'],
  ['exact', 'Exact'],
] as const
export const SECOND_LINE_CHOICES = [
  ['below', 'Below'],
  ['above', 'Above'],
  ['ends', 'At the far end'],
] as const
export const SIDES_CHOICES = [
  ['all', 'All round'],
  ['ends', 'Above and below'],
] as const
export const ICON_PLACE_CHOICES = [
  ['before', 'Before'],
  ['after', 'After'],
  ['above', 'Above'],
] as const
export const WEIGHT_CHOICES = [
  [400, 'Light'],
  [500, 'Normal'],
  [600, 'Firm'],
  [700, 'Bold'],
  [800, 'Heavy'],
] as const

export const ROLE_WORDS: Record<Role, string> = {
  paper: 'Paper',
  ink: 'Ink',
  soft: 'Soft ink',
  accent: 'Main colour',
  accentDark: 'Main colour, deep',
  onAccent: 'On main colour',
  line: 'Lines',
}
export const PART_WORDS: Record<CheckedPart, string> = {
  words: 'The label',
  note: 'The second line',
  icon: 'The icon',
  mark: 'The focus mark',
}
export const STATE_WORDS: Record<State, string> = { normal: '', hover: ' under the pointer', pressed: ' while pressed', focus: '' }
