import { defineEventHandler } from 'h3'
import { publishEntriesSchema } from '../../../../../core/catalogue/entry'
import { accessOf } from '../../../../utils/access'
import { MANY, idOf, parseBody } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

/** Puts entries live: those that are named, or all that wait. */
export default defineEventHandler(async event => {
  const { ids } = await parseBody(event, publishEntriesSchema, { most: MANY })
  return (await useTrough()).entries.publish(idOf(event), ids, (await accessOf(event)).by)
})
