import { defineEventHandler } from 'h3'
import { accountOf } from '../utils/session'

/** Who is signed in, if anybody. */
export default defineEventHandler(async event => ({ account: (await accountOf(event)) ?? null }))
