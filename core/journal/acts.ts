/** What an act was done to, where that can be looked up by its identity. */
export type Subject = 'file' | 'page' | 'signpost' | 'look' | 'folder' | 'gate' | 'person' | 'catalogue' | null

/** Acts that are not requests to the API. */
export const OWN_ACTS = {
  'signed-in': 'signed in',
  'sign-in-refused': 'could not sign in',
  'signed-out': 'signed out',
  'set-up': 'set this Trough up',
  'password-changed': 'changed the password',
  'password-reset': 'set the password anew on the machine',
  'session-ended': 'ended a session',
  'second-factor-begun': 'began to ask for one-time codes',
  'second-factor-ended': 'no longer asks for one-time codes',
  'uploaded': 'put in a file',
  'joined': 'came by an invitation',
  'left': 'left',
  'password-lost': 'asked for another password',
  'password-renewed': 'chose another password by a link',
} as const
export type OwnAct = keyof typeof OWN_ACTS

interface RequestAct {
  method: string
  path: string
  words: string
  subject: Subject
}

/** Requests that change something worth knowing, with what is said of them. `:id` is what it was done to. */
const REQUESTS: RequestAct[] = [
  ['POST', '/bag', 'made a bag', null],
  ['POST', '/backup', 'made a backup', null],
  ['POST', '/bundles', 'made a bundle', null],
  ['PUT', '/bundles/:id', 'changed a bundle', 'file'],
  ['POST', '/bundles/:id/add', 'put more into a bundle', 'file'],
  ['POST', '/catalogues', 'made a catalogue', null],
  ['POST', '/catalogues/of-site', 'opened the values of the site', null],
  ['PATCH', '/catalogues/:id', 'changed a catalogue', 'catalogue'],
  ['DELETE', '/catalogues/:id', 'took a catalogue away', 'catalogue'],
  ['PUT', '/catalogues/:id/fields', 'changed the fields of a catalogue', 'catalogue'],
  ['POST', '/catalogues/:id/fields/restore', 'took a field of a catalogue out of the bin', 'catalogue'],
  ['POST', '/catalogues/:id/pages', 'made pages for a catalogue', 'catalogue'],
  ['POST', '/catalogues/:id/layout', 'made a page for each entry', 'catalogue'],
  ['POST', '/catalogues/:id/entries', 'made entries', 'catalogue'],
  ['PUT', '/catalogues/:id/entries/order', 'put entries in order', 'catalogue'],
  ['POST', '/catalogues/:id/entries/publish', 'put entries live', 'catalogue'],
  ['POST', '/catalogues/:id/entries/unpublish', 'took entries from visitors', 'catalogue'],
  ['POST', '/catalogues/:id/entries/remove', 'put entries in the bin', 'catalogue'],
  ['POST', '/catalogues/:id/entries/restore', 'took entries out of the bin', 'catalogue'],
  ['PUT', '/entries/:id/slug', 'moved an entry to another address', null],
  ['POST', '/entry-imports/:id/bring', 'brought entries in', null],
  ['DELETE', '/entry-imports/:id', 'took back entries that had been brought in', null],
  ['PUT', '/cleaning', 'changed what is cleaned away', null],
  ['POST', '/cleaning/now', 'cleaned up', null],
  ['PUT', '/delivery-settings', 'changed how files are checked', null],
  ['PUT', '/fetch-hosts', 'changed what may be fetched from', null],
  ['POST', '/fetches', 'fetched a file', null],
  ['PATCH', '/files/:id', 'changed a file', 'file'],
  ['POST', '/files/:id/bag', 'brought in a bag', 'file'],
  ['PUT', '/files/:id/edition', 'put another edition live', 'file'],
  ['PATCH', '/files/:id/editions/:number', 'changed an edition', 'file'],
  ['DELETE', '/files/:id/editions/:number', 'threw an edition away', 'file'],
  ['POST', '/files/:id/editions/:number/split', 'made an edition a file of its own', 'file'],
  ['POST', '/files/:id/unpack', 'unpacked a zip', 'file'],
  ['POST', '/files/:id/links', 'made a personal link', 'file'],
  ['DELETE', '/links/:id', 'took a personal link back', null],
  ['POST', '/gates', 'made a gate', null],
  ['PATCH', '/gates/:id', 'changed a gate', 'gate'],
  ['DELETE', '/gates/:id', 'took a gate away', 'gate'],
  ['POST', '/gates/:id/passwords', 'added a password', 'gate'],
  ['PUT', '/gates/:id/passwords', 'changed the password of a gate', 'gate'],
  ['DELETE', '/gates/:id/passwords/:password', 'took a password back', 'gate'],
  ['POST', '/gates/:id/end-passes', 'asked everybody again at a gate', 'gate'],
  ['POST', '/hooks', 'had another service told', null],
  ['PATCH', '/hooks/:id', 'changed what another service is told', null],
  ['DELETE', '/hooks/:id', 'had another service told no more', null],
  ['POST', '/hooks/:id/secret', 'made another secret for a service', null],
  ['POST', '/guests', 'put guests in', null],
  ['PATCH', '/guests/:id', 'changed a guest', null],
  ['DELETE', '/guests/:id', 'erased a guest', null],
  ['POST', '/groups', 'made a group', null],
  ['PATCH', '/groups/:id', 'renamed a group', null],
  ['DELETE', '/groups/:id', 'took a group away', null],
  ['DELETE', '/contacts/:id', 'erased a contact', null],
  ['PUT', '/arrivals/:id', 'put away what came by the letterbox', null],
  ['DELETE', '/arrivals/:id', 'forgot who handed something in', null],
  ['PUT', '/downloads/summary', 'changed how often it is told what was taken', null],
  ['POST', '/downloads/summary/now', 'had it told what was taken', null],
  ['POST', '/downloads/imports', 'brought in numbers of before', null],
  ['DELETE', '/downloads/imports/:id', 'took out numbers that had been brought in', null],
  ['DELETE', '/downloads/persons/:person', 'took out of downloads who had them', null],
  ['PUT', '/contacts/rules', 'changed how long contacts are kept', null],
  ['POST', '/outbox/:id/again', 'had a message sent again', null],
  ['DELETE', '/outbox/:id', 'deleted a message', null],
  ['PUT', '/mail', 'changed how messages are sent', null],
  ['POST', '/mail/test', 'sent a message to try it', null],
  ['POST', '/people/invitations', 'asked somebody to help', null],
  ['POST', '/people/invitations/:id/again', 'asked somebody to help once more', null],
  ['DELETE', '/people/invitations/:id', 'took an invitation back', null],
  ['PATCH', '/people/:id', 'changed what somebody may do', 'person'],
  ['DELETE', '/people/:id', 'let somebody go', null],
  ['POST', '/people/:id/end-sessions', 'signed somebody out', 'person'],
  ['POST', '/first-pages', 'made the first pages', null],
  ['POST', '/folders', 'made a folder', null],
  ['PATCH', '/folders/:id', 'changed a folder', 'folder'],
  ['PUT', '/folders/:id/order', 'ordered a folder', 'folder'],
  ['POST', '/looks', 'made a look', null],
  ['PATCH', '/looks/:id', 'changed a look', 'look'],
  ['DELETE', '/looks/:id', 'deleted a look', 'look'],
  ['POST', '/shelf-looks', 'made a look of shelves', null],
  ['PATCH', '/shelf-looks/:id', 'changed a look of shelves', null],
  ['DELETE', '/shelf-looks/:id', 'deleted a look of shelves', null],
  ['PUT', '/icons', 'gave an icon', null],
  ['DELETE', '/icons', 'took an icon away', null],
  ['POST', '/looks/tokens', 'took in looks', null],
  ['POST', '/old-addresses', 'brought in old addresses', null],
  ['PUT', '/old-addresses', 'led an old address elsewhere', null],
  ['DELETE', '/old-addresses', 'forgot an old address', null],
  ['POST', '/old-addresses/loosen', 'led old addresses to nothing', null],
  ['POST', '/old-addresses/suggestions', 'took what was suggested for old addresses', null],
  ['POST', '/pages', 'made a page', null],
  ['DELETE', '/pages/:id', 'removed a page', 'page'],
  ['POST', '/pages/:id/restore', 'took a page out of the bin', 'page'],
  ['DELETE', '/pages/bin/:id', 'deleted a page for good', null],
  ['POST', '/pages/:id/duplicate', 'copied a page', 'page'],
  ['POST', '/pages/:id/publish', 'put a page live', 'page'],
  ['POST', '/pages/:id/unpublish', 'took a page offline', 'page'],
  ['PATCH', '/pages/:id/settings', 'changed the settings of a page', 'page'],
  ['POST', '/selection/copy', 'copied files', null],
  ['POST', '/selection/describe', 'described files', null],
  ['POST', '/selection/move', 'moved files', null],
  ['POST', '/selection/remove', 'put files in the bin', null],
  ['POST', '/selection/for-good', 'deleted files for good', null],
  ['POST', '/selection/restore', 'took files out of the bin', null],
  ['POST', '/signposts', 'made a signpost', null],
  ['PATCH', '/signposts/:id', 'changed a signpost', 'signpost'],
  ['DELETE', '/signposts/:id', 'took a signpost down', 'signpost'],
  ['POST', '/signposts/:id/turn', 'turned a signpost', 'signpost'],
  ['PUT', '/site', 'changed the site', null],
  ['PUT', '/site/icon', 'changed the icon of the site', null],
  ['PUT', '/style', 'changed colours and type', null],
  ['POST', '/typefaces', 'took in a typeface', null],
  ['POST', '/targets/replace', 'put one thing in the place of another everywhere', null],
  ['POST', '/targets/take-back', 'took a replacement back', null],
  ['POST', '/timetable', 'set something to happen', null],
  ['DELETE', '/timetable/:id', 'took back what was set to happen', null],
  ['POST', '/verify', 'had all bytes read again', null],
  ['POST', '/walk/mend', 'mended what the walk found', null],
  ['POST', '/walk/reword', 'made labels fit their files', null],
  ['POST', '/walk/take-back', 'took a mend back', null],
  ['POST', '/walk/leave', 'left a finding as it is', null],
  ['POST', '/walk/take-up', 'took a finding up again', null],
  ['PUT', '/walk/outside', 'changed whether addresses elsewhere are asked', null],
].map(([method, path, words, subject]) => ({ method, path, words, subject }) as RequestAct)

/** Requests that change nothing to speak of, or are told otherwise. */
export const UNTOLD = [
  // Saved as it is typed.
  'PUT /pages/:id/draft',
  'PATCH /catalogues/:id/entries',
  // They only ask.
  'POST /catalogues/:id/match',
  'POST /downloads/imports/look',
  'POST /entry-imports',
  'POST /entry-imports/of-file',
  'POST /entry-imports/:id/forecast',
  'POST /files/clashes',
  'POST /files/some',
  'POST /guests/some',
  'POST /hooks/:id/try',
  'POST /hooks/:id/messages/:message/again',
  'POST /targets/places',
  'POST /cleaning/preview',
  'POST /selection/zip',
  'POST /selection/frees',
  'POST /reading/again',
  'POST /walk',
  'DELETE /verify',
  'DELETE /jobs/:id',
  // Told by what they are, in words of their own.
  'POST /session',
  'DELETE /session',
  'POST /setup',
  'ALL /uploads',
  'ALL /uploads/:id',
  'DELETE /account',
  'POST /entry',
  'POST /entry/look',
  'POST /entry/lost',
  'PUT /account/password',
  'POST /account/password-reset',
  'POST /account/second-factor',
  'PUT /account/second-factor',
  'POST /account/second-factor/end',
  'DELETE /account/sessions/:id',
  'POST /account/sessions/end-others',
]

const keyOf = ({ method, path }: Pick<RequestAct, 'method' | 'path'>) => `${method} ${path}`
const BY_KEY = new Map(REQUESTS.map(act => [keyOf(act), act]))
const PATTERNS = REQUESTS.map(act => ({ act, pattern: new RegExp(`^${act.path.replace(/:\w+/g, '([^/]+)')}$`) }))
export const TOLD = [...BY_KEY.keys()]

/**
 * What a request does, as the journal keeps it.
 *
 * @param path below `/api`, without its query
 */
export function actOf(method: string, path: string): { act: string; about: string } | undefined {
  for (const { act, pattern } of PATTERNS) {
    const match = act.method === method ? pattern.exec(path) : null
    if (match) return { act: keyOf(act), about: act.subject === null ? '' : match[1]! }
  }
  return undefined
}

/** What is said of an act in the journal, and what it was done to. */
export function wordsOfAct(act: string): { words: string; subject: Subject } {
  const known = BY_KEY.get(act)
  return known
    ? { words: known.words, subject: known.subject }
    : { words: OWN_ACTS[act as OwnAct] ?? act, subject: act === 'uploaded' ? 'file' : null }
}

/** The acts that are told with some words. */
export const actsCalled = (piece: string): string[] =>
  [...TOLD, ...Object.keys(OWN_ACTS)].filter(act => wordsOfAct(act).words.includes(piece.toLowerCase()))
