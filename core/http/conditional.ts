import { parseHttpDate, wholeSeconds } from './date'
import { parseEntityTags, strongMatch, weakMatch } from './etag'

export interface Validators {
  /** strong, with its quotes */
  etag: string
  /** left out where no date says when the bytes last changed */
  lastModified?: Date
}

/** Header fields by lower-case name, as Node gives them. */
export type RequestHeaders = Record<string, string | string[] | undefined>

export function headerOf(headers: RequestHeaders, name: string): string | undefined {
  const value = headers[name]
  return Array.isArray(value) ? value.join(', ') : value
}

/**
 * What the preconditions of a GET or HEAD ask for, in the order of RFC 9110, section 13.2.2
 * (If-Range belongs to the range and is judged by {@link rangeApplies}).
 */
export function evaluatePreconditions(headers: RequestHeaders, { etag, lastModified }: Validators): 'proceed' | 304 | 412 {
  const ifMatch = headerOf(headers, 'if-match')
  const ifUnmodifiedSince = headerOf(headers, 'if-unmodified-since')
  if (ifMatch !== undefined) {
    const tags = parseEntityTags(ifMatch)
    if (tags !== '*' && !tags.some(tag => strongMatch(tag, etag))) return 412
  } else if (ifUnmodifiedSince !== undefined) {
    const since = parseHttpDate(ifUnmodifiedSince)
    if (since !== undefined && lastModified && wholeSeconds(lastModified) > since) return 412
  }

  const ifNoneMatch = headerOf(headers, 'if-none-match')
  const ifModifiedSince = headerOf(headers, 'if-modified-since')
  if (ifNoneMatch !== undefined) {
    // Nearly every client sends just the tag it was given.
    if (ifNoneMatch === etag) return 304
    const tags = parseEntityTags(ifNoneMatch)
    if (tags === '*' || tags.some(tag => weakMatch(tag, etag))) return 304
  } else if (ifModifiedSince !== undefined) {
    const since = parseHttpDate(ifModifiedSince)
    if (since !== undefined && lastModified && wholeSeconds(lastModified) <= since) return 304
  }
  return 'proceed'
}

/**
 * Whether a Range is to be honoured given If-Range (RFC 9110, section 13.1.5): an entity tag is compared
 * strongly, a date exactly, and only where the date is a strong validator, which it is when the
 * representation is at least a second old (section 8.8.2.2).
 */
export function rangeApplies(headers: RequestHeaders, { etag, lastModified }: Validators, now = new Date()): boolean {
  const condition = headerOf(headers, 'if-range')
  if (condition === undefined) return true
  if (/^(?:W\/)?"/.test(condition)) return strongMatch(condition, etag)
  return (
    lastModified !== undefined && parseHttpDate(condition) === wholeSeconds(lastModified) && now.getTime() - lastModified.getTime() >= 1000
  )
}
