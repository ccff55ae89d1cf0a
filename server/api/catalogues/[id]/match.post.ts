import { defineEventHandler } from 'h3'
import { matchSchema } from '../../../../core/catalogue/entry'
import { accessOf } from '../../../utils/access'
import { MANY, idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Which entry each of some files belongs to; nothing is changed. */
export default defineEventHandler(async event => {
  const { field, files } = await parseBody(event, matchSchema, { most: MANY })
  await (await accessOf(event)).mustFiles('see', files)
  return { items: await (await useTrough()).fileFields.match(idOf(event), field, files) }
})
