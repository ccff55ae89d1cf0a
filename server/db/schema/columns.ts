import { customType, timestamp } from 'drizzle-orm/pg-core'

/** An instant. */
export const moment = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' })

/** The different words of a text, in PostgreSQL's type for finding them. */
export const wordSet = customType<{ data: string }>({ dataType: () => 'tsvector' })

/** Bytes as they are. */
export const bytes = customType<{ data: Uint8Array; driverData: Uint8Array }>({ dataType: () => 'bytea' })

/** As it is written, or as visitors have it. */
export type Side = 'draft' | 'live'
