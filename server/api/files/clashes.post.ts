import { defineEventHandler } from 'h3'
import { clashQuerySchema } from '../../../core/files/clash'
import { accessOf } from '../../utils/access'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Which of some names are taken where they would go. */
export default defineEventHandler(async event => {
  const asked = await parseBody(event, clashQuerySchema, { most: MANY })
  ;(await accessOf(event)).mustPlace('put', asked.folder)
  return { clashes: await (await useTrough()).library.clashes(asked) }
})
