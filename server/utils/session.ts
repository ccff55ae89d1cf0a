import { timingSafeEqual } from 'node:crypto'
import { clearSession, getCookie, getRequestHeader, getRequestProtocol, unsealSession, updateSession, type H3Event, type SessionConfig } from 'h3'
import { LRUCache } from 'lru-cache'
import { useTrough } from './trough'
import type { Account } from '../services/account/account'

const DAYS_30 = 30 * 24 * 60 * 60
const COOKIE = 'trough'

async function configOf(event: H3Event): Promise<SessionConfig> {
  const { secrets } = await useTrough()
  const secure = getRequestProtocol(event, { xForwardedProto: true }) === 'https'
  return { name: COOKIE, password: secrets.session, maxAge: DAYS_30, cookie: { httpOnly: true, sameSite: 'lax', path: '/', secure } }
}

/** Opening a sealed cookie takes longer than all the rest of a small answer: what was opened is kept for a while. */
const opened = new LRUCache<string, string>({ max: 500, ttl: 5 * 60 * 1000 })

/** The account a sealed cookie names; undefined for one that is broken, foreign or too old. */
async function openCookie(event: H3Event, sealed: string): Promise<string | undefined> {
  const known = opened.get(sealed)
  if (known !== undefined) return known
  const config = await configOf(event)
  const session = await unsealSession(event, config, sealed).catch(() => undefined)
  const id = session?.data?.account
  if (typeof id !== 'string') return undefined
  const left = session!.createdAt! + DAYS_30 * 1000 - Date.now()
  opened.set(sealed, id, { ttl: Math.min(left, 5 * 60 * 1000) })
  return id
}

/** Whoever is signed in; a cookie that is broken, foreign or too old counts as none. */
export async function accountOf(event: H3Event): Promise<Account | undefined> {
  const sealed = getCookie(event, COOKIE)
  // h3 would set a cookie on every stranger when asked for a session that is not there.
  if (!sealed) return undefined
  const id = await openCookie(event, sealed)
  return id === undefined ? undefined : (await useTrough()).account.find(id)
}

export async function signIn(event: H3Event, account: Account): Promise<void> {
  await updateSession(event, await configOf(event), { account: account.id })
}

export async function signOut(event: H3Event): Promise<void> {
  await clearSession(event, await configOf(event))
}

/** Where an attempt to sign in comes from. */
export const originOf = (event: H3Event) => event.node.req.socket.remoteAddress ?? 'unknown'

/** Whether a request carries the secret of the data folder: a command on this machine, or a program that reads the measurements. */
export async function hasControl(event: H3Event): Promise<boolean> {
  const [scheme, token = ''] = (getRequestHeader(event, 'authorization') ?? '').split(' ')
  if (scheme !== 'Bearer') return false
  const { secrets } = await useTrough()
  const [given, own] = [Buffer.from(token), Buffer.from(secrets.control)]
  return given.length === own.length && timingSafeEqual(given, own)
}
