import { defineEventHandler, sendRedirect, type H3Event } from 'h3'
import { VisitorProblem } from '../../core/language/visitorProblem'
import { Problem, notFound } from '../../core/problem'
import { needOf, type Need } from '../../core/rights/routes'
import type { Access } from '../services/rights/access'
import { accessOf } from '../utils/access'
import { accountOf, hasControl } from '../utils/session'
import { useTrough } from '../utils/trough'

/** Pages of the desk for those who are not signed in, or not yet. */
const DOORS = ['/desk/sign-in', '/desk/set-up', '/desk/join', '/desk/lost']
const under = (path: string, base: string) => path === base || path.startsWith(`${base}/`)

const refused = () => new Problem(403, 'That is not among what you may do here.', 'Ask the owner of the site for it.')

/** @throws Problem 403 or 404 where that is not for who asks */
async function mustHave(access: Access, need: Exclude<Need, 'anyone' | 'machine'>, id: string | undefined): Promise<void> {
  if (need === 'signed in') return
  if (need === 'owner') return access.mustBeOwner()
  if (typeof need === 'string') return access.must(need)
  if ('file' in need) return access.mustFiles(need.file, [id!])
  if ('folder' in need) return access.mustPlace(need.folder, id!)
  if ('somewhere' in need) {
    if (access.somewhere(need.somewhere)) return
    throw refused()
  }
  if (need.everywhere !== undefined) access.mustEverywhere(need.everywhere)
  if ('all' in need) return need.all.forEach(access.must)
  if (!need.any.some(access.may)) throw refused()
}

async function guardApi(event: H3Event, path: string): Promise<void> {
  const asked = needOf(event.method, path)
  if (asked?.need === 'anyone') return
  // Strangers do not even learn what there is.
  const account = await accountOf(event)
  if (!account && !(await hasControl(event))) throw new Problem(401, 'Sign in first.', 'Open /desk and sign in.')
  if (!asked) throw notFound('request of the API')
  if (asked.need === 'machine') {
    if (await hasControl(event)) return
    throw new Problem(403, 'This is done on the machine Trough runs on.', 'Run “npm run trough” there: it says what it can do.')
  }
  await mustHave(await accessOf(event), asked.need, asked.id)
}

/** Lets nobody at the desk, and nothing in its API, further than their rights go; and shows strangers the right door. */
export default defineEventHandler(async event => {
  const path = event.path.split('?')[0]!
  if (under(path, '/api')) await guardApi(event, path.slice('/api'.length))
  else if (under(path, '/desk')) {
    const { account } = await useTrough()
    const isSetUp = await account.isSetUp()
    const doors = isSetUp ? DOORS.filter(door => door !== '/desk/set-up') : ['/desk/set-up']
    const signedIn = !!(await accountOf(event))
    // Who comes by an invitation or a link for a lost password may be signed in as somebody else.
    if (signedIn && DOORS.includes(path) && path !== '/desk/join') return sendRedirect(event, '/desk', 303)
    if (!signedIn && !doors.includes(path)) return sendRedirect(event, doors[0]!, 303)
  }
  // The desk's own assets have been answered before; the framework would show its own page for what is none.
  else throw new VisitorProblem(404, 'nowhere')
})
