import type { FileRight, SiteRight } from './rights'

/**
 * What a request to the API needs.
 *
 * - `anyone`: nothing; `signed in`: an account; `owner`: one with every right; `machine`: the secret of the data folder;
 * - a right of the site; one of several, or all of them, with one over the whole library where that is said;
 * - a right where the file or the folder `:id` lies;
 * - `somewhere`: the right anywhere at all, and the handler asks for each thing that the request names (`mustFiles`, `mustPlace`).
 */
export type Need =
  | 'anyone'
  | 'signed in'
  | 'owner'
  | 'machine'
  | SiteRight
  | { any: SiteRight[]; everywhere?: FileRight }
  | { all: SiteRight[]; everywhere?: FileRight }
  | { file: FileRight }
  | { folder: FileRight }
  | { somewhere: FileRight }

/** What was taken names files wherever they lie. */
const DOWNLOADS: Need = { any: ['downloads'], everywhere: 'see' }
const PAGES: Need = { any: ['write', 'publish'] }
const LIVE_PAGES: Need = { all: ['write', 'publish'] }
/** What is found of pages names files wherever they lie. */
const FINDINGS: Need = { any: ['write', 'publish'], everywhere: 'see' }
/** Bundles and signposts follow, and files get other names, wherever they lie. */
const EVERYWHERE: Need = { all: ['write', 'publish'], everywhere: 'edit' }

/** Every request of the API with what it needs: one that is not named here keeps the server from starting. */
export const ROUTES: Record<string, Need> = {
  // Getting in
  'GET /health': 'anyone',
  'GET /session': 'anyone',
  'POST /session': 'anyone',
  'DELETE /session': 'anyone',
  'POST /setup': 'anyone',
  'POST /entry': 'anyone',
  'POST /entry/look': 'anyone',
  'POST /entry/lost': 'anyone',

  // One's own account
  'DELETE /account': 'signed in',
  'PUT /account/password': 'signed in',
  'POST /account/password-reset': 'machine',
  'POST /account/second-factor': 'signed in',
  'PUT /account/second-factor': 'signed in',
  'POST /account/second-factor/end': 'signed in',
  'GET /account/sessions': 'signed in',
  'DELETE /account/sessions/:id': 'signed in',
  'POST /account/sessions/end-others': 'signed in',
  'GET /news': 'signed in',
  'GET /warnings': 'signed in',

  // People
  'GET /people': 'owner',
  'PATCH /people/:id': 'owner',
  'DELETE /people/:id': 'owner',
  'POST /people/:id/end-sessions': 'owner',
  'POST /people/invitations': 'owner',
  'POST /people/invitations/:id/again': 'owner',
  'DELETE /people/invitations/:id': 'owner',
  'GET /journal': 'owner',
  'GET /journal/export': 'owner',

  // Downloads
  'GET /downloads/board': DOWNLOADS,
  'GET /downloads/catalogues/:id': DOWNLOADS,
  'GET /downloads/log': DOWNLOADS,
  'GET /downloads/misses': DOWNLOADS,
  'GET /downloads/export': DOWNLOADS,
  'GET /downloads/placements/:placement': DOWNLOADS,
  'DELETE /downloads/persons/:person': 'contacts',
  'GET /downloads/summary': DOWNLOADS,
  'PUT /downloads/summary': 'site',
  'POST /downloads/summary/now': 'site',
  'GET /downloads/imports': DOWNLOADS,
  'POST /downloads/imports': 'site',
  'POST /downloads/imports/look': 'site',
  'DELETE /downloads/imports/:id': 'site',

  // Files and folders
  'GET /files': { somewhere: 'see' },
  'GET /files/ids': { somewhere: 'see' },
  'POST /files/some': { somewhere: 'see' },
  'GET /files/twins': { somewhere: 'see' },
  'POST /files/clashes': { somewhere: 'put' },
  'GET /files/:id': { file: 'see' },
  'PATCH /files/:id': { file: 'edit' },
  'GET /files/:id/bytes': { file: 'see' },
  'GET /files/:id/contents': { file: 'see' },
  'GET /files/:id/preview': { file: 'see' },
  'GET /files/:id/pages/:number': { file: 'see' },
  'PUT /files/:id/edition': { file: 'renew' },
  'GET /files/:id/editions/:number/comparison': { file: 'see' },
  'PATCH /files/:id/editions/:number': { file: 'renew' },
  'DELETE /files/:id/editions/:number': { file: 'delete' },
  'POST /files/:id/editions/:number/split': { file: 'put' },
  'POST /files/:id/unpack': { file: 'put' },
  'POST /files/:id/bag': { file: 'see' },
  'GET /files/:id/links': 'gates',
  'POST /files/:id/links': 'gates',
  'DELETE /links/:id': 'gates',
  'GET /folders': { somewhere: 'see' },
  'POST /folders': { somewhere: 'put' },
  'PATCH /folders/:id': { folder: 'edit' },
  'PUT /folders/:id/order': { folder: 'edit' },
  'GET /tags': { somewhere: 'see' },
  'POST /selection/copy': { somewhere: 'put' },
  'POST /selection/describe': { somewhere: 'edit' },
  'POST /selection/move': { somewhere: 'edit' },
  'POST /selection/remove': { somewhere: 'delete' },
  'POST /selection/restore': { somewhere: 'delete' },
  'POST /selection/for-good': { somewhere: 'delete' },
  'POST /selection/frees': { somewhere: 'delete' },
  'POST /selection/zip': { somewhere: 'see' },
  'GET /selection/zip/:id': { somewhere: 'see' },
  'POST /bag': { somewhere: 'see' },
  'ALL /uploads': { somewhere: 'see' },
  'ALL /uploads/:id': { somewhere: 'see' },
  'GET /uploads/:id/file': { somewhere: 'see' },
  'POST /fetches': { somewhere: 'put' },
  'GET /jobs': 'signed in',
  'DELETE /jobs/:id': 'signed in',
  'POST /bundles': { somewhere: 'put' },
  'GET /bundles/:id': { file: 'see' },
  'PUT /bundles/:id': { file: 'edit' },
  'POST /bundles/:id/add': { file: 'edit' },
  'GET /recognise': { any: ['write', 'publish', 'design'] },
  'GET /reading': 'signed in',
  'POST /reading/again': { somewhere: 'edit' },
  'GET /timetable': 'signed in',
  'POST /timetable': 'signed in',
  'DELETE /timetable/:id': 'signed in',

  // Pages
  'GET /pages': PAGES,
  'POST /pages': 'write',
  'GET /pages/:id': PAGES,
  'DELETE /pages/:id': 'write',
  'PUT /pages/:id/draft': 'write',
  'POST /pages/:id/duplicate': 'write',
  'GET /pages/:id/preview': PAGES,
  'POST /pages/:id/publish': 'publish',
  'POST /pages/:id/unpublish': 'publish',
  'POST /pages/:id/restore': 'write',
  'PATCH /pages/:id/settings': 'write',
  'GET /pages/:id/versions': PAGES,
  'GET /pages/:id/versions/:number': PAGES,
  'DELETE /pages/bin/:id': LIVE_PAGES,
  'POST /first-pages': LIVE_PAGES,
  'POST /targets/places': { somewhere: 'see' },
  'POST /targets/replace': EVERYWHERE,
  'POST /targets/take-back': EVERYWHERE,
  'GET /walk': FINDINGS,
  'POST /walk': FINDINGS,
  'GET /walk/counts': FINDINGS,
  'POST /walk/leave': FINDINGS,
  'POST /walk/take-up': FINDINGS,
  'POST /walk/mend': EVERYWHERE,
  'POST /walk/reword': EVERYWHERE,
  'POST /walk/take-back': EVERYWHERE,
  'PUT /walk/outside': 'site',

  // Catalogues
  'GET /catalogues': PAGES,
  'POST /catalogues': 'write',
  'POST /catalogues/of-site': 'write',
  'PATCH /catalogues/:id': 'write',
  'DELETE /catalogues/:id': LIVE_PAGES,
  'PUT /catalogues/:id/fields': LIVE_PAGES,
  'POST /catalogues/:id/fields/restore': LIVE_PAGES,
  'GET /catalogues/:id/strays': PAGES,
  'POST /catalogues/:id/pages': 'write',
  'POST /catalogues/:id/layout': 'write',
  'GET /catalogues/:id/bin': PAGES,
  'GET /catalogues/:id/imports': PAGES,
  'POST /catalogues/:id/match': 'write',
  'GET /catalogues/:id/export': PAGES,
  'GET /catalogues/:id/entries': PAGES,
  'POST /catalogues/:id/entries': 'write',
  'PATCH /catalogues/:id/entries': 'write',
  'PUT /catalogues/:id/entries/order': LIVE_PAGES,
  'POST /catalogues/:id/entries/publish': 'publish',
  'POST /catalogues/:id/entries/unpublish': 'publish',
  'POST /catalogues/:id/entries/remove': LIVE_PAGES,
  'POST /catalogues/:id/entries/restore': LIVE_PAGES,
  'GET /entries': PAGES,
  'PUT /entries/:id/slug': LIVE_PAGES,
  'GET /entries/:id/versions': PAGES,
  'GET /entries/:id/places': PAGES,
  'POST /entry-imports': 'write',
  'POST /entry-imports/of-file': 'write',
  'POST /entry-imports/:id/forecast': 'write',
  'POST /entry-imports/:id/bring': LIVE_PAGES,
  'DELETE /entry-imports/:id': LIVE_PAGES,

  // Looks and signposts
  'GET /looks': 'signed in',
  'POST /looks': 'design',
  'PATCH /looks/:id': 'design',
  'DELETE /looks/:id': 'design',
  'GET /looks/tokens': 'signed in',
  'POST /looks/tokens': 'design',
  'GET /shelf-looks': 'signed in',
  'POST /shelf-looks': 'design',
  'PATCH /shelf-looks/:id': 'design',
  'DELETE /shelf-looks/:id': 'design',
  'PUT /icons': 'design',
  'DELETE /icons': 'design',
  'GET /signposts': 'signed in',
  'POST /signposts': 'design',
  'PATCH /signposts/:id': 'design',
  'DELETE /signposts/:id': 'design',
  'GET /signposts/:id/places': 'signed in',
  'POST /signposts/:id/turn': 'design',

  // Gates, contacts, messages
  'GET /gates': 'gates',
  'POST /gates': 'gates',
  'PATCH /gates/:id': 'gates',
  'DELETE /gates/:id': 'gates',
  'GET /gates/:id/uses': 'gates',
  'POST /gates/:id/passwords': 'gates',
  'PUT /gates/:id/passwords': 'gates',
  'DELETE /gates/:id/passwords/:password': 'gates',
  'POST /gates/:id/end-passes': 'gates',
  'GET /guests': 'gates',
  'POST /guests': 'gates',
  'POST /guests/some': 'gates',
  'PATCH /guests/:id': 'gates',
  'DELETE /guests/:id': 'gates',
  'GET /groups': 'gates',
  'POST /groups': 'gates',
  'PATCH /groups/:id': 'gates',
  'DELETE /groups/:id': 'gates',
  'GET /contacts': 'contacts',
  'GET /contacts/:id': 'contacts',
  'DELETE /contacts/:id': 'contacts',
  'GET /contacts/export': 'contacts',
  'GET /contacts/rules': 'contacts',
  'PUT /contacts/rules': 'contacts',
  'GET /arrivals': 'contacts',
  'GET /arrivals/:id': 'contacts',
  'PUT /arrivals/:id': 'contacts',
  'DELETE /arrivals/:id': 'contacts',
  'GET /outbox': 'owner',
  'GET /outbox/:id': 'owner',
  'DELETE /outbox/:id': 'owner',
  'POST /outbox/:id/again': 'owner',

  // Other services: what visitors left is told to them
  'GET /hooks': 'owner',
  'POST /hooks': 'owner',
  'PATCH /hooks/:id': 'owner',
  'DELETE /hooks/:id': 'owner',
  'POST /hooks/:id/secret': 'owner',
  'POST /hooks/:id/try': 'owner',
  'GET /hooks/:id/messages': 'owner',
  'POST /hooks/:id/messages/:message/again': 'owner',

  // The setup
  'GET /site': 'signed in',
  'PUT /site': 'site',
  'GET /site/icon': 'signed in',
  'GET /site/kept': 'signed in',
  'PUT /site/icon': 'site',
  'PUT /style': 'design',
  'GET /style/preview': PAGES,
  'POST /typefaces': 'design',
  // Messages lead into accounts: who reads them, or says where they go, could let himself in.
  'GET /mail': 'owner',
  'PUT /mail': 'owner',
  'POST /mail/test': 'owner',
  'GET /cleaning': 'site',
  'PUT /cleaning': 'site',
  'POST /cleaning/now': 'site',
  'POST /cleaning/preview': 'site',
  'GET /delivery-settings': 'site',
  'PUT /delivery-settings': 'site',
  'GET /fetch-hosts': 'site',
  'PUT /fetch-hosts': 'site',
  'GET /old-addresses': 'site',
  'POST /old-addresses': 'site',
  'PUT /old-addresses': 'site',
  'DELETE /old-addresses': 'site',
  'POST /old-addresses/loosen': 'site',
  'POST /old-addresses/suggestions': 'site',
  'GET /programs': 'site',
  'GET /storage': 'site',
  'GET /verify': 'site',
  'POST /verify': 'site',
  'DELETE /verify': 'site',
  'GET /metrics': 'site',
  'POST /backup': 'machine',
}

const PATTERNS = Object.keys(ROUTES)
  .map(route => {
    const [method, path] = route.split(' ') as [string, string]
    return { route, method, named: path.split(':').length - 1, pattern: new RegExp(`^${path.replace(/:\w+/g, '([^/]+)')}$`) }
  })
  // What is named word for word comes before what could be anything.
  .sort((a, b) => a.named - b.named)

/**
 * The need of a request, with the identity its path names.
 *
 * @param path below `/api`, without its query
 * @returns undefined where there is no such request
 */
export function needOf(method: string, path: string): { route: string; need: Need; id?: string } | undefined {
  const asked = method === 'HEAD' ? 'GET' : method
  for (const { route, method: own, pattern } of PATTERNS) {
    const match = own === asked || own === 'ALL' ? pattern.exec(path) : null
    if (match) return { route, need: ROUTES[route]!, ...(match[1] !== undefined && { id: match[1] }) }
  }
  return undefined
}
