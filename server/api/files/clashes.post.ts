import { defineEventHandler } from 'h3'
import { clashQuerySchema } from '../../../core/files/clash'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Which of some names are taken where they would go. */
export default defineEventHandler(async event => ({
  clashes: await (await useTrough()).library.clashes(await parseBody(event, clashQuerySchema, { most: MANY })),
}))
