/** A pattern of LIKE for texts that hold a piece, whatever it takes for more than itself. */
export const holding = (piece: string): string => `%${piece.replace(/[\\%_]/g, match => `\\${match}`)}%`
