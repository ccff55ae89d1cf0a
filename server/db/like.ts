import { sql, type SQL, type SQLWrapper } from 'drizzle-orm'

/** A pattern of LIKE for texts that hold a piece, whatever it takes for more than itself. */
export const holding = (piece: string): string => `%${piece.replace(/[\\%_]/g, match => `\\${match}`)}%`

/**
 * What an index of words leaves to be looked at for a piece of text: what has a word that begins with each word of it. Where there is no
 * letter or figure in it, all are looked at.
 */
export const nearBy = (words: SQLWrapper, piece: string): SQL =>
  sql`(numnode(beginnings_of(${piece})) = 0 or ${words} @@ beginnings_of(${piece}))`
