import { defineEventHandler, sendRedirect } from 'h3'
import { VisitorProblem } from '../../core/language/visitorProblem'
import { Problem } from '../../core/problem'
import { accountOf, hasControl } from '../utils/session'
import { useTrough } from '../utils/trough'

const OPEN_API = ['/api/session', '/api/setup', '/api/health']
const DOORS = ['/desk/sign-in', '/desk/set-up']
const under = (path: string, base: string) => path === base || path.startsWith(`${base}/`)

/** Closes the desk and its API to strangers, and shows them the right door; nothing else is here. */
export default defineEventHandler(async event => {
  const path = event.path.split('?')[0]!
  if (under(path, '/api')) {
    if (!OPEN_API.includes(path) && !(await accountOf(event)) && !(await hasControl(event)))
      throw new Problem(401, 'Sign in first.', 'Open /desk and sign in.')
  } else if (under(path, '/desk')) {
    const { account } = await useTrough()
    const door = (await account.isSetUp()) ? '/desk/sign-in' : '/desk/set-up'
    const signedIn = !!(await accountOf(event))
    if (signedIn && DOORS.includes(path)) return sendRedirect(event, '/desk', 303)
    if (!signedIn && path !== door) return sendRedirect(event, door, 303)
  }
  // The desk's own assets have been answered before; the framework would show its own page for what is none.
  else throw new VisitorProblem(404, 'nowhere')
})
