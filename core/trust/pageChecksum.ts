/** Bytes of a page of PostgreSQL. */
export const PAGE = 8192
/** Pages of one file of a table; the next ones are in the file of the same name with `.1` behind it. */
export const PAGES_A_FILE = 131_072

const SUMS = 32
const PRIME = 16_777_619
const OFFSETS = [
  0x5b1f36e9, 0xb8525960, 0x02ab50aa, 0x1de66d2a, 0x79ff467a, 0x9bb9f8a3, 0x217e7cd2, 0x83e13d2c, 0xf8d4474f, 0xe39eb970, 0x42c6ae16,
  0x993216fa, 0x7b093b5d, 0x98daff3c, 0xf718902a, 0x0b1c9cdb, 0xe58f764b, 0x187636bc, 0x5d7b3bb1, 0xe73de7de, 0x92bec979, 0xcca6c0b2,
  0x304a0979, 0x85aa43d4, 0x783125bb, 0x6ca8eaa2, 0xe407eac6, 0x4b5cfc3e, 0x9fbf8c76, 0x15ca20be, 0xf2ca9fd3, 0x959bd756,
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
