import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto'
import { getCookie, getRequestHeader, getRequestURL, setCookie, deleteCookie, type H3Event } from 'h3'
import type { Account } from '../../core/account/accountForms'
import { Problem } from '../../core/problem'
import type { Attempt } from '../services/account/signInLimits'
import { LASTS, type Session } from '../services/account/sessions'
import { useTrough } from './trough'

const COOKIE = 'trough'
const DEVICE_COOKIE = 'trough-device'
const YEAR = 365 * 24 * 60 * 60

function sameBytes(given: string, own: string): boolean {
  const [a, b] = [Buffer.from(given), Buffer.from(own)]
  return a.length === b.length && timingSafeEqual(a, b)
}

/** Cookies that only this host, and only by https, gets to see have a name that browsers hold them to (RFC 6265bis, section 4.1.3.2). */
async function cookieOf(event: H3Event, name: string) {
  const secure = (await useTrough()).visitors.isSecure(event.node.req)
  return { name: secure ? `__Host-${name}` : name, options: { httpOnly: true, sameSite: 'lax' as const, path: '/', secure } }
}

const placeOf = async ({ node: { req } }: H3Event): Promise<string> => (await useTrough()).visitors.addressOf(req)

/** The session a request carries; a cookie that is broken, foreign or too old counts as none. */
export async function sessionOf(event: H3Event): Promise<Session | undefined> {
  const token = getCookie(event, (await cookieOf(event, COOKIE)).name)
  // No cookie, no question to the database.
  return token ? (await useTrough()).sessions.find(token, await placeOf(event)) : undefined
}

/** Whoever is signed in. */
export const accountOf = async (event: H3Event): Promise<Account | undefined> => (await sessionOf(event))?.account

/** @throws Problem 401 for a program that has the secret of the data folder, and is nobody */
export async function mustBeSignedIn(event: H3Event): Promise<Session> {
  const session = await sessionOf(event)
  if (!session) throw new Problem(401, 'Sign in first.', 'Open /desk and sign in.')
  return session
}

export async function signIn(event: H3Event, account: Account): Promise<void> {
  const { sessions } = await useTrough()
  const token = await sessions.begin(account.id, await placeOf(event), getRequestHeader(event, 'user-agent'))
  const { name, options } = await cookieOf(event, COOKIE)
  setCookie(event, name, token, { ...options, maxAge: LASTS / 1000 })
  await rememberDevice(event)
}

export async function signOut(event: H3Event): Promise<void> {
  const session = await sessionOf(event)
  if (session) await (await useTrough()).sessions.end(session.account.id, session.id)
  const { name, options } = await cookieOf(event, COOKIE)
  deleteCookie(event, name, options)
}

const sealOf = async (device: string): Promise<string> =>
  createHmac('sha256', (await useTrough()).secrets.session)
    .update(`device ${device}`)
    .digest('base64url')

/** Marks a browser as one that somebody has signed in from: it keeps an allowance of its own. */
async function rememberDevice(event: H3Event): Promise<void> {
  const device = (await deviceOf(event)) ?? randomBytes(12).toString('base64url')
  const { name, options } = await cookieOf(event, DEVICE_COOKIE)
  setCookie(event, name, `${device}.${await sealOf(device)}`, { ...options, maxAge: YEAR })
}

async function deviceOf(event: H3Event): Promise<string | undefined> {
  const [device, seal] = (getCookie(event, (await cookieOf(event, DEVICE_COOKIE)).name) ?? '').split('.')
  return device && seal && sameBytes(seal, await sealOf(device)) ? device : undefined
}

/** Where a change to somebody's account comes from, for the message that tells of it. */
export const changedFrom = async (event: H3Event) => ({ place: await placeOf(event), origin: getRequestURL(event).origin })

/** Where an attempt to sign in comes from. */
export const attemptOf = async (event: H3Event): Promise<Attempt> => ({ place: await placeOf(event), device: await deviceOf(event) })

/** Whether a request carries the secret of the data folder: a command on this machine, or a program that reads the measurements. */
export async function hasControl(event: H3Event): Promise<boolean> {
  const [scheme, token = ''] = (getRequestHeader(event, 'authorization') ?? '').split(' ')
  return scheme === 'Bearer' && sameBytes(token, (await useTrough()).secrets.control)
}
