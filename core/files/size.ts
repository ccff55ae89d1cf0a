const UNITS = ['B', 'kB', 'MB', 'GB', 'TB', 'PB']

/** A size for people, in decimal units with SI prefixes (IEC 80000-13): `240 kB`, `1.4 MB`. */
export function formatSize(bytes: number): string {
  let value = bytes
  let unit = 0
  // 999.5 would be shown as "1000": it belongs to the next unit.
  while (unit < UNITS.length - 1 && value >= (unit === 0 ? 1000 : 999.5)) {
    value /= 1000
    unit++
  }
  const digits = unit === 0 || value >= 9.95 ? 0 : 1
  return `${value.toFixed(digits).replace(/\.0$/, '')} ${UNITS[unit]}`
}

/** The same size to the byte: `240,113 bytes`. */
export function formatExactSize(bytes: number): string {
  return `${bytes.toLocaleString('en')} ${bytes === 1 ? 'byte' : 'bytes'}`
}
