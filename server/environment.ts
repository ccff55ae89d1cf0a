import { isIPv6 } from 'node:net'
import { z } from 'zod'
import { smtpAddressSchema } from '../core/outbox/mailSettings'
import type { Options } from './trough'

type Environment = Record<string, string | undefined>

/** 0 is any that is free. */
const port = (name: string, fallback: number) => {
  const words = `${name} is a port, such as ${fallback}.`
  return z.coerce.number(words).int(words).min(0, words).max(65535, words).default(fallback)
}

/** Every setting of the process; what each is for stands in the table of README.md, and what systemd sets in docs/server.md. */
const environmentSchema = z.object({
  PORT: port('PORT', 4180),
  HOST: z.string().default('127.0.0.1'),
  TROUGH_DATA: z.string().default('./data'),
  TROUGH_SITE_URL: z.string().default(''),
  TROUGH_FRONT_PREFIX: z
    .string()
    .regex(/^\/[\w/-]*\/$/, 'TROUGH_FRONT_PREFIX begins and ends with a slash, such as /_trough-store/.')
    .optional(),
  TROUGH_FRONT_LOG_PORT: port('TROUGH_FRONT_LOG_PORT', 4181),
  TROUGH_PROXIES: z
    .string()
    .default('')
    .transform(list =>
      list
        .split(',')
        .map(address => address.trim())
        .filter(Boolean),
    ),
  TROUGH_SMTP: smtpAddressSchema.optional(),
  PATH: z.string().default(''),
  TROUGH_PROGRAMS: z.string().optional(),
  TROUGH_LOG: z.literal('requests', 'TROUGH_LOG is “requests”, or is left out.').optional(),
  LISTEN_FDS: z.string().optional(),
  LISTEN_PID: z.string().optional(),
})

/** @throws Error with a message for the console where a variable makes no sense */
function read(environment: Environment): z.output<typeof environmentSchema> {
  // One that is set to nothing is one that is not set.
  const given = Object.fromEntries(Object.entries(environment).filter(([, value]) => value !== ''))
  const { data, error } = environmentSchema.safeParse(given)
  if (!data) throw new Error(error.issues.map(issue => issue.message).join(' '))
  return data
}

/** Where a server started with this environment is reached on this machine. */
export function ownAddress(environment: Environment): string {
  const { HOST, PORT } = read(environment)
  const host = ['0.0.0.0', '::'].includes(HOST) ? 'localhost' : isIPv6(HOST) ? `[${HOST}]` : HOST
  return `http://${host}:${PORT}`
}

/**
 * What the server listens on: a port, or the socket that systemd holds for it (sd_listen_fds(3)), in which visitors wait while Trough
 * starts again.
 */
export function listenOn(environment: Environment, pid: number): { fd: number } | { port: number; host: string } {
  const { PORT, HOST, LISTEN_FDS, LISTEN_PID } = read(environment)
  return LISTEN_FDS === '1' && Number(LISTEN_PID) === pid ? { fd: 3 } : { port: PORT, host: HOST }
}

/** Whether each request is logged, or only what went wrong. */
export const logsRequests = (environment: Environment): boolean => read(environment).TROUGH_LOG === 'requests'

/** The options that services are opened with. */
export function readEnvironment(environment: Environment): Options {
  const {
    TROUGH_FRONT_PREFIX: prefix,
    TROUGH_FRONT_LOG_PORT,
    TROUGH_DATA,
    TROUGH_SITE_URL,
    TROUGH_PROXIES,
    TROUGH_PROGRAMS,
    TROUGH_SMTP,
    PATH,
  } = read(environment)
  return {
    data: TROUGH_DATA,
    siteAddress: TROUGH_SITE_URL,
    smtp: TROUGH_SMTP,
    // A front server stands on this machine unless it is said where.
    proxies: TROUGH_PROXIES.length ? TROUGH_PROXIES : prefix ? ['127.0.0.1', '::1'] : [],
    programs: TROUGH_PROGRAMS === 'none' ? [] : (TROUGH_PROGRAMS ?? PATH).split(':').filter(Boolean),
    front: prefix === undefined ? undefined : { prefix, port: TROUGH_FRONT_LOG_PORT },
  }
}
