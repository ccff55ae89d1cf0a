/** How several files that are placed at once stand on a page. */
export type Arrangement = 'row' | 'stack' | 'cards' | 'pictures' | 'shelf' | 'bundle'
