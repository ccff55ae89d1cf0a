import type { H3Event } from 'h3'
import { Problem } from '../../core/problem'
import type { Access } from '../services/rights/access'
import { accountOf, hasControl } from './session'
import { useTrough } from './trough'

/**
 * What may be done by who asks. Commands on this machine may do everything.
 *
 * @throws Problem 401 for strangers
 */
export async function accessOf(event: H3Event): Promise<Access> {
  const known = event.context.access as Access | undefined
  if (known) return known
  const account = await accountOf(event)
  if (!account && !(await hasControl(event))) throw new Problem(401, 'Sign in first.', 'Open /desk and sign in.')
  const access = await (await useTrough()).access.of(account?.rights ?? null, account?.email ?? '')
  event.context.access = access
  return access
}
