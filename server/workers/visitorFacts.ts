import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import Bowser from 'bowser'
import { LRUCache } from 'lru-cache'
import { Reader, type CountryResponse } from 'maxmind'

export interface Visitor {
  address: string
  userAgent: string
}
/** In broad words; empty where it cannot be told. */
export interface VisitorFacts {
  country: string
  device: string
  browser: string
  system: string
}

const DEVICES: Record<string, string> = { mobile: 'phone', tablet: 'tablet', desktop: 'computer', tv: 'television' }

/** Countries of networks, from what their registries say (CC0). */
const places = new Reader<CountryResponse & { country_code?: string }>(
  readFileSync(createRequire(import.meta.url).resolve('@ip-location-db/geo-whois-asn-country-mmdb/geo-whois-asn-country.mmdb')),
)
const programs = new LRUCache<string, Omit<VisitorFacts, 'country'>>({ max: 5000 })

function countryOf(address: string): string {
  try {
    return places.get(address)?.country_code ?? ''
  } catch {
    // No address, as where a front server named its visitors otherwise.
    return ''
  }
}

function programOf(userAgent: string): Omit<VisitorFacts, 'country'> {
  const known = programs.get(userAgent)
  if (known) return known
  const { browser, os, platform } = Bowser.parse(userAgent || 'unknown')
  const found = {
    device: DEVICES[platform.type ?? ''] ?? '',
    browser: browser.name?.slice(0, 60) ?? '',
    system: os.name?.slice(0, 60) ?? '',
  }
  programs.set(userAgent, found)
  return found
}

/** What address and browser of a visitor tell in broad words. */
export const factsOf = ({ address, userAgent }: Visitor): VisitorFacts => ({ country: countryOf(address), ...programOf(userAgent) })
