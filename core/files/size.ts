/** Decimal units with SI prefixes (IEC 80000-13). */
export const SIZE_UNITS = ['B', 'kB', 'MB', 'GB', 'TB', 'PB'] as const

/** A size as a number to be shown with so many decimals, in a unit of `SIZE_UNITS`. */
export function scaledSize(bytes: number): { value: number; decimals: 0 | 1; unit: number } {
  let value = bytes
  let unit = 0
  // 999.5 would be shown as "1000": it belongs to the next unit.
  while (unit < SIZE_UNITS.length - 1 && value >= (unit === 0 ? 1000 : 999.5)) {
    value /= 1000
    unit++
  }
  return { value, decimals: unit === 0 || value >= 9.95 ? 0 : 1, unit }
}

/** A size for people: `240 kB`, `1.4 MB`. */
export function formatSize(bytes: number): string {
  const { value, decimals, unit } = scaledSize(bytes)
  return `${value.toFixed(decimals).replace(/\.0$/, '')} ${SIZE_UNITS[unit]}`
}

/** The same size to the byte: `240,113 bytes`. */
export function formatExactSize(bytes: number): string {
  return `${bytes.toLocaleString('en')} ${bytes === 1 ? 'byte' : 'bytes'}`
}
