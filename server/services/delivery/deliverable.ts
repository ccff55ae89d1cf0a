import { contentTypeHeader, isActiveContent, isTextLike, opensInBrowser } from '../../../core/files/mediaType'
import { contentDisposition } from '../../../core/http/disposition'
import { represent, withFields, type Representation } from '../../../core/http/respond'
import type { ZipLayout } from '../../../core/zip/layout'
import type { blobs, editions } from '../../db/schema'
import type { LaidOut } from '../bundles/packing'

/** A file inside a zip that is counted by its files. */
export interface Content {
  file: string
  edition: number
  /** bytes */ size: number
}

/** One edition, or a bundle as it is now, ready to be answered with. */
export interface Deliverable {
  file: string
  edition: number
  /** stored bytes, or a zip put together as it is sent */
  bytes: { sha256: string } | { layout: ZipLayout }
  fileName: string
  /** worth sending smaller to clients that can unpack it */
  textLike: boolean
  /** the files a zip was picked from: each of them is downloaded with it, and the zip is no file of its own */
  contents?: Content[]
  /** identities of the files that a bundle holds */
  members?: readonly string[]
  /** as its type is best handled: shown where that is safe */
  shown: Representation
  saved: Representation
}

/** The address stays while the contents change: asked again each time, answered by 304. */
const ASK_AGAIN = { 'X-Content-Type-Options': 'nosniff', 'Cache-Control': 'no-cache' }

/** A Repr-Digest field (RFC 9530) of a SHA-256 in hexadecimal. */
export const reprDigest = (sha256: string) => `sha-256=:${Buffer.from(sha256, 'hex').toString('base64')}:`

/** A bundle as a zip that is put together as it is sent. */
export function bundleDeliverable(id: string, { layout, fileName, fingerprint, changed, members }: LaidOut): Deliverable {
  const saved = represent({
    size: layout.size,
    contentType: 'application/zip',
    etag: `"${fingerprint}"`,
    lastModified: changed,
    extra: { 'Content-Disposition': contentDisposition('attachment', fileName), ...ASK_AGAIN },
  })
  return { file: id, edition: 1, bytes: { layout }, fileName, textLike: false, members, saved, shown: saved }
}

/** Only who has passed its gates may keep it, and asks again each time (RFC 9111, section 5.2.2.7). */
const OWN = { 'Cache-Control': 'private, no-cache' }
const owned = new WeakMap<Deliverable, Deliverable>()

/** The same for somebody who has passed its gates: nobody in between keeps it for others. */
export function ownedBy(deliverable: Deliverable): Deliverable {
  const known = owned.get(deliverable)
  if (known) return known
  const { shown, saved } = deliverable
  const saves = withFields(saved, OWN)
  const own = { ...deliverable, saved: saves, shown: shown === saved ? saves : withFields(shown, OWN) }
  owned.set(deliverable, own)
  return own
}

export interface EditionRow {
  edition: typeof editions.$inferSelect
  blob: typeof blobs.$inferSelect
}

/** @param changed when it became the file's current edition; left out where the edition is asked for by its number */
export function editionDeliverable({ edition, blob }: EditionRow, changed?: Date): Deliverable {
  const { mediaType, fileName } = edition
  const textLike = isTextLike(mediaType)
  const headers: Record<string, string> = {
    'Repr-Digest': reprDigest(blob.sha256),
    ...ASK_AGAIN,
    // What an edition made public by its number holds never changes (RFC 8246).
    ...(edition.pinned && !changed && { 'Cache-Control': 'public, max-age=31536000, immutable' }),
    ...(textLike && { Vary: 'Accept-Encoding' }),
  }
  if (isActiveContent(mediaType)) headers['Content-Security-Policy'] = "sandbox; default-src 'none'"
  const as = (disposition: 'inline' | 'attachment') =>
    represent({
      size: blob.size,
      contentType: contentTypeHeader(mediaType, blob.facts.charset),
      etag: `"${blob.sha256.slice(0, 32)}"`,
      // Going back to an earlier edition is a change of today.
      lastModified: changed ?? edition.created,
      extra: { 'Content-Disposition': contentDisposition(disposition, fileName), ...headers },
    })
  const saved = as('attachment')
  return {
    file: edition.fileId,
    edition: edition.number,
    bytes: { sha256: blob.sha256 },
    fileName,
    textLike,
    saved,
    shown: opensInBrowser(mediaType) ? as('inline') : saved,
  }
}
