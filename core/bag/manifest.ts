/** The declaration every bag begins with (RFC 8493, section 2.1.1). */
export const DECLARATION = 'BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n'

/** A path as it stands in a manifest: line ends and per cent signs are written in hexadecimal (RFC 8493, section 2.1.3). */
const encodePath = (path: string) =>
  path.replace(/[%\n\r]/g, letter => `%${letter.charCodeAt(0).toString(16).toUpperCase().padStart(2, '0')}`)
const decodePath = (path: string) => path.replace(/%(25|0a|0d)/gi, (_, hex: string) => String.fromCharCode(Number.parseInt(hex, 16)))

/** A manifest: checksum and path of each file (RFC 8493, sections 2.1.3 and 2.2.1). */
export function writeManifest(files: { path: string; sha256: string }[]): string {
  return files.map(({ path, sha256 }) => `${sha256}  ${encodePath(path)}\n`).join('')
}

/**
 * Reads a manifest of SHA-256 checksums.
 *
 * @returns checksums by path
 * @throws RangeError naming the first line that is none
 */
export function readManifest(text: string): Map<string, string> {
  const checksums = new Map<string, string>()
  for (const line of text.replace(/^\uFEFF/, '').split(/\r\n|\n|\r/)) {
    if (!line.trim()) continue
    // Written by sha256sum in binary mode, a star stands in front of the path.
    const match = /^([0-9a-f]{64})[ \t]+\*?(.+)$/i.exec(line)
    if (!match) throw new RangeError(`“${line.slice(0, 80)}” is no line of a manifest.`)
    checksums.set(decodePath(match[2]!).replace(/^\.\//, ''), match[1]!.toLowerCase())
  }
  return checksums
}

/** What is said of a bag as a whole (RFC 8493, section 2.2.2). */
export function writeBagInfo(facts: Record<string, string>): string {
  return Object.entries(facts)
    .map(([label, value]) => `${label}: ${value.replace(/\s+/g, ' ').trim()}\n`)
    .join('')
}
