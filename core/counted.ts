import { z } from 'zod'

/** The largest there can be (PostgreSQL, numeric types: `integer`). */
const MOST = 2_147_483_647
const NONE = 'There is none of that number.'

/** The number of an edition, a version or a revision. */
export const countedSchema = z.number().int().min(1).max(MOST, NONE)
/** The same in an address. */
export const countedInAddressSchema = z.coerce.number('Give a number.').int().min(1).max(MOST, NONE)
/** A place among others, from 0. */
export const positionSchema = z.number().int().min(0).max(MOST, NONE)
