/** By what downloads are told apart, besides when they were. */
export const DIMENSIONS = [
  'file',
  'edition',
  'placement',
  'page',
  'signpost',
  'campaign',
  'referrer',
  'country',
  'device',
  'browser',
  'system',
  'language',
  'course',
  'person',
  'link',
  'source',
] as const
export type Dimension = (typeof DIMENSIONS)[number]

/** By what they are told apart besides, which is not written down with them: where their file lies now, and which bundle it is. */
export const DERIVED = ['inFolder', 'bundle'] as const
export type Derived = (typeof DERIVED)[number]

export const LISTED = [...DIMENSIONS, ...DERIVED] as const
export type Listed = (typeof LISTED)[number]

/** How a download came to be whole: in one answer, or in several that were put together. */
export const COURSES = ['whole', 'pieces'] as const
export type Course = (typeof COURSES)[number]

/** Where a download came from and, in broad words, what with; empty where that is not known or not kept. */
export interface Particulars {
  /** identity of the page it was taken from */
  page: string
  /** identity of the signpost it was asked for by */
  signpost: string
  /** what `?from=` said: a newsletter, a poster */
  campaign: string
  /** host of another site that led to it */
  referrer: string
  /** the path there, where it was sent */
  referrerPath: string
  /** two letters (ISO 3166-1) */
  country: string
  /** phone, tablet, computer, television */
  device: string
  browser: string
  system: string
  /** the first language asked for (BCP 47, without region) */
  language: string
  /** who it was, where a gate knew them: the pass that a contact or guest is counted by */
  person: string
  /** identity of the personal link they came by */
  link: string
  /** of the network; kept only where the owner chose so, and only for days */
  address: string
}

export const NO_PARTICULARS: Particulars = {
  page: '',
  signpost: '',
  campaign: '',
  referrer: '',
  referrerPath: '',
  country: '',
  device: '',
  browser: '',
  system: '',
  language: '',
  person: '',
  link: '',
  address: '',
}

/** A campaign as `?from=` may name it; empty for anything else. */
export const campaignOf = (text: string | null | undefined): string =>
  text && /^[\p{L}\p{N}][\p{L}\p{N}._-]{0,59}$/u.test(text) ? text.toLowerCase() : ''

/** The first language of an Accept-Language field (RFC 9110, section 12.5.4) without its region; browsers send them best first. */
export const languageOf = (accepted: string | undefined): string =>
  /^\s*([a-z]{2,3})(?=[-,;\s]|$)/i.exec(accepted ?? '')?.[1]?.toLowerCase() ?? ''

/** What a request says of where it came from, as it was sent. */
export interface Came {
  referer: string | undefined
  /** Accept-Language */
  accepted: string | undefined
  /** the site as the visitor knows it */
  host: string | undefined
  /** `?from=` */
  campaign: string | null
  /** the signpost it was asked for by, by its name */
  signpost: string | null
  /** somebody asked not to be followed */
  isPrivate: boolean
  /** whom a gate knew them as */
  person?: string
  /** the personal link they came by */
  link?: string
}

/** Whether a visitor asked not to be followed: Global Privacy Control (W3C draft), Do Not Track (as browsers sent it). */
export const asksForPrivacy = (headers: { [name: string]: unknown }): boolean => headers['sec-gpc'] === '1' || headers.dnt === '1'

/** What a Referer field says: a page of this site, by its path, or another site. */
export interface Referred {
  /** of a page of our own */
  path?: string
  referrer: string
  referrerPath: string
}
const NOWHERE: Referred = { referrer: '', referrerPath: '' }

/**
 * Reads a Referer field (RFC 9110, section 10.1.3).
 *
 * @param hosts under which this site answers
 */
export function referredBy(referer: string | undefined, hosts: readonly string[]): Referred {
  if (!referer || !URL.canParse(referer)) return NOWHERE
  const { protocol, host, pathname } = new URL(referer)
  if (protocol !== 'http:' && protocol !== 'https:') return NOWHERE
  if (hosts.includes(host)) return { ...NOWHERE, path: pathname }
  return { referrer: host.replace(/^www\./, '').slice(0, 253), referrerPath: pathname === '/' ? '' : pathname.slice(0, 500) }
}
