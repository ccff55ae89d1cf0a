import { request as plainRequest, type IncomingMessage } from 'node:http'
import { request as secureRequest } from 'node:https'
import { isIP } from 'node:net'
import { Problem } from '../../../core/problem'
import { PrivateAddress, guardedLookup, isPublic } from './ssrfGuard'

export interface OutsideRequest {
  method: 'GET' | 'HEAD' | 'POST'
  /** the host may lie in a private network */
  allowed: boolean
  agent: string
  /** milliseconds without a byte */
  silence: number
  signal?: AbortSignal
  /** beside those that every request has */
  headers?: Record<string, string>
  body?: string
}

/** A host without its port, and without the brackets of IPv6. */
export const hostOf = (url: URL) => url.hostname.replace(/^\[|\]$/g, '')

/**
 * Asks an address on the web, connecting only to what was checked; follows no redirect.
 *
 * @throws PrivateAddress where it lies in a network that is not allowed, Problem 504 where it is silent
 */
export function askOutside(url: URL, { method, allowed, agent, silence, signal, headers, body }: OutsideRequest): Promise<IncomingMessage> {
  const host = hostOf(url)
  // An address written out is connected to without a look-up.
  if (isIP(host) && !allowed && !isPublic(host)) return Promise.reject(new PrivateAddress(url.host))
  const send = url.protocol === 'https:' ? secureRequest : plainRequest
  return new Promise((resolve, reject) => {
    const request = send(
      url,
      {
        method,
        signal,
        lookup: guardedLookup(url.host, allowed),
        timeout: silence,
        headers: { 'User-Agent': agent, 'Accept': '*/*', 'Accept-Encoding': 'identity', ...headers },
      },
      resolve,
    )
    request.on('timeout', () => request.destroy(new Problem(504, `${url.host} does not answer.`, 'Try again later.')))
    request.on('error', reject)
    request.end(body)
  })
}
