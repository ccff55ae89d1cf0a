import { defineEventHandler } from 'h3'
import { someFilesSchema } from '../../../core/files/selection'
import { accessOf } from '../../utils/access'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Files by identity. */
export default defineEventHandler(async event => {
  const { files } = await parseBody(event, someFilesSchema, { most: MANY })
  return { items: (await accessOf(event)).shown(await (await useTrough()).library.byId(files)) }
})
