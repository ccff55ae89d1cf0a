import { defineEventHandler } from 'h3'
import { newEntriesSchema } from '../../../../../core/catalogue/entry'
import { MANY, idOf, parseBody } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

/** Makes entries. */
export default defineEventHandler(async event => {
  const { entries, copies } = await parseBody(event, newEntriesSchema, { most: MANY })
  return { items: await (await useTrough()).entries.create(idOf(event), entries, { copies }) }
})
