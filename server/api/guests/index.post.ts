import { defineEventHandler } from 'h3'
import { newGuestsSchema } from '../../../core/guests/guest'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Puts people in. */
export default defineEventHandler(async event => ({
  ids: await (await useTrough()).guests.add(await parseBody(event, newGuestsSchema, { most: MANY })),
}))
