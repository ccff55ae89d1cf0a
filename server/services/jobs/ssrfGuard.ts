import { lookup as resolve, type LookupAddress } from 'node:dns'
import type { LookupFunction } from 'node:net'
import ipaddr from 'ipaddr.js'

/** Thrown where a host's address lies inside a network; its name can be allowed. */
export class PrivateAddress extends Error {
  constructor(readonly host: string) {
    super(`${host} lies in a private network.`)
    this.name = 'PrivateAddress'
  }
}

/** Whether an address is anybody's on the internet (IANA special-purpose registries, as `ipaddr.js` has them). */
export function isPublic(address: string): boolean {
  if (!ipaddr.isValid(address)) return false
  // An IPv4 address in IPv6 clothes is judged by what it is.
  return ipaddr.process(address).range() === 'unicast'
}

/**
 * A look-up for a connection that refuses names whose addresses are not public. It is the connection's own, so
 * that what is checked is what is connected to.
 */
export function guardedLookup(host: string, allowed: boolean): LookupFunction {
  return (name, options, done) => {
    resolve(name, { ...options, all: true }, (error, addresses: LookupAddress[]) => {
      if (error) return done(error, '', 4)
      const inside = !allowed && addresses.some(({ address }) => !isPublic(address))
      if (inside || !addresses.length) return done(new PrivateAddress(host) as NodeJS.ErrnoException, '', 4)
      if (options.all) return done(null, addresses as never)
      done(null, addresses[0]!.address, addresses[0]!.family)
    })
  }
}
