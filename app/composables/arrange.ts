/** How several files that are placed at once stand on a page; "library": not at all, they only come in. */
export type Arrangement = 'row' | 'stack' | 'cards' | 'pictures' | 'shelf' | 'bundle' | 'library'
