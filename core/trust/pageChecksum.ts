/** Bytes of a page of PostgreSQL. */
export const PAGE = 8192
/** Pages of one file of a table; the next ones are in the file of the same name with `.1` behind it. */
export const PAGES_A_FILE = 131_072

const SUMS = 32
const PRIME = 16_777_619
const OFFSETS = [
  0x5B1F36E9, 0xB8525960, 0x02AB50AA, 0x1DE66D2A, 0x79FF467A, 0x9BB9F8A3, 0x217E7CD2, 0x83E13D2C,
  0xF8D4474F, 0xE39EB970, 0x42C6AE16, 0x993216FA, 0x7B093B5D, 0x98DAFF3C, 0xF718902A, 0x0B1C9CDB,
  0xE58F764B, 0x187636BC, 0x5D7B3BB1, 0xE73DE7DE, 0x92BEC979, 0xCCA6C0B2, 0x304A0979, 0x85AA43D4,
  0x783125BB, 0x6CA8EAA2, 0xE407EAC6, 0x4B5CFC3E, 0x9FBF8C76, 0x15CA20BE, 0xF2CA9FD3, 0x959BD756,
]

function mixed(sum: number, value: number): number {
  const together = sum ^ value
  return Math.imul(together, PRIME) ^ (together >>> 17)
}

/** Where the checksum stands in a page, and where it says how much of it is used (PostgreSQL, database page layout). */
const [CHECKSUM_AT, UPPER_AT] = [8, 14]

/**
 * Whether a page of a table or index is as it was written (PostgreSQL, data checksums; the sum is that of its
 * src/include/storage/checksum_impl.h, constants from memory and held against pages the database wrote). A page that was
 * never used has none.
 *
 * @param number of the page, counted from the beginning of the table
 */
export function isPageWhole(page: DataView, number: number): boolean {
  if (page.getUint16(UPPER_AT, true) === 0) return true
  const sums = Uint32Array.from(OFFSETS)
  for (let at = 0; at < PAGE; at += 4 * SUMS) {
    for (let index = 0; index < SUMS; index++) {
      const place = at + 4 * index
      // The checksum is no part of what it sums up.
      const value = place === CHECKSUM_AT ? page.getUint16(place + 2, true) << 16 : page.getUint32(place, true)
      sums[index] = mixed(sums[index]!, value)
    }
  }
  for (let round = 0; round < 2; round++) for (let index = 0; index < SUMS; index++) sums[index] = mixed(sums[index]!, 0)
  const all = sums.reduce((whole, sum) => whole ^ sum, 0) ^ number
  return ((all >>> 0) % 65_535) + 1 === page.getUint16(CHECKSUM_AT, true)
}
