/** What the desk calls the choices of a page's blocks, in the order they are offered. */
export const ACTION_CHOICES = [['tab', 'New tab'], ['here', 'This tab'], ['save', 'Save']] as const
export const ALIGN_CHOICES = [['left', 'Left'], ['middle', 'Middle'], ['right', 'Right']] as const
export const TONE_CHOICES = [['plain', 'Plain'], ['tint', 'Tinted'], ['deep', 'Deep']] as const
export const SPACE_CHOICES = [['small', 'Little'], ['medium', 'Some'], ['large', 'Much']] as const
export const WIDTH_CHOICES = [['text', 'As text'], ['wide', 'Wider']] as const
export const COUNT_CHOICES = [[2, '2'], [3, '3'], [4, '4']] as const
export const ORDER_CHOICES = [['title', 'By title'], ['newest', 'Newest'], ['own', 'Folder’s']] as const
