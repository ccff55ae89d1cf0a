import { z } from 'zod'
import type { Options } from './trough'

const environmentSchema = z.object({
  TROUGH_DATA: z.string().default('').transform(path => path || './data'),
  TROUGH_SITE_URL: z.string().default(''),
  TROUGH_FRONT_PREFIX: z.string().regex(/^\/[\w/-]*\/$/, 'TROUGH_FRONT_PREFIX begins and ends with a slash, such as /_trough-store/.').optional(),
  TROUGH_FRONT_LOG_PORT: z.coerce.number({ error: 'TROUGH_FRONT_LOG_PORT is a port, such as 4181.' }).int().min(1).max(65535).default(4181),
  TROUGH_PROXIES: z.string().default('').transform(list => list.split(',').map(address => address.trim()).filter(Boolean)),
})

/** Where a server started with this environment is reached on this machine (the variables are Nitro's own). */
export function ownAddress({ NITRO_HOST, HOST, NITRO_PORT, PORT }: Record<string, string | undefined>): string {
  const host = NITRO_HOST || HOST || 'localhost'
  return `http://${['0.0.0.0', '::'].includes(host) ? 'localhost' : host}:${NITRO_PORT || PORT || 3000}`
}

/**
 * What the environment asks for.
 *
 * @throws Error with a message for the console where a variable makes no sense
 */
export function readEnvironment(environment: Record<string, string | undefined>): Options {
  const { data, error } = environmentSchema.safeParse(environment)
  if (!data) throw new Error(error.issues.map(issue => issue.message).join(' '))
  const { TROUGH_FRONT_PREFIX: prefix, TROUGH_FRONT_LOG_PORT: port } = data
  return {
    data: data.TROUGH_DATA,
    siteAddress: data.TROUGH_SITE_URL,
    // A front server stands on this machine unless it is said where.
    proxies: data.TROUGH_PROXIES.length ? data.TROUGH_PROXIES : prefix ? ['127.0.0.1', '::1'] : [],
    front: prefix === undefined ? undefined : { prefix, port },
  }
}
