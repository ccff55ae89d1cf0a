import pino from 'pino'

/** One line of JSON for each thing that happened, on the standard output. */
export const log = pino({ base: { pid: process.pid }, timestamp: pino.stdTimeFunctions.isoTime })

/** Logs what could not be done in the background: nobody waits for it, and it is tried again. */
export const laterTrouble =
  (message: string) =>
  (error: unknown): void =>
    log.error({ err: error }, message)
