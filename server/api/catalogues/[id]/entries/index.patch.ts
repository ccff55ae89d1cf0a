import { defineEventHandler } from 'h3'
import { changeEntriesSchema } from '../../../../../core/catalogue/entry'
import { MANY, idOf, parseBody } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

/** Changes cells of entries, all or none. */
export default defineEventHandler(async event => {
  const { changes } = await parseBody(event, changeEntriesSchema, { most: MANY })
  return { items: await (await useTrough()).entries.change(idOf(event), changes) }
})
