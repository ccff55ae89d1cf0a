/** Content codings of ours (RFC 9110, section 8.4.1; Brotli: RFC 7932). */
export const CODINGS = ['br', 'gzip'] as const
export type Coding = (typeof CODINGS)[number]

/** The best coding of ours a client accepts (RFC 9110, section 12.5.3). */
export function chooseEncoding(accept: string | undefined): Coding | 'identity' {
  if (!accept) return 'identity'
  const weights = new Map(
    accept.split(',').map((part): [string, number] => {
      const [name = '', ...parameters] = part.trim().toLowerCase().split(';')
      const weight = parameters.map(parameter => /^\s*q=([\d.]+)\s*$/.exec(parameter)?.[1]).find(Boolean)
      return [name.trim(), weight === undefined ? 1 : Number(weight)]
    }),
  )
  const weightOf = (name: string) => weights.get(name) ?? weights.get('*') ?? 0
  const [best] = CODINGS.filter(name => weightOf(name) > 0).sort((a, b) => weightOf(b) - weightOf(a))
  return best ?? 'identity'
}
