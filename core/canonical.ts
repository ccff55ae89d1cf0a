/** The same text for the same value, however its parts are ordered: a database may order them anew. */
export const canonical = (value: unknown): string | undefined =>
  JSON.stringify(value, (_key, part: unknown) => {
    if (typeof part !== 'object' || part === null || Array.isArray(part)) return part
    return Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1)))
  })
