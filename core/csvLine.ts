import papa from 'papaparse'

/** A line of a table (RFC 4180); cells that a table program would take for a formula are told to be text (OWASP, CSV Injection). */
export const csvLine = (cells: string[]): string => `${papa.unparse([cells], { escapeFormulae: true })}\r\n`
