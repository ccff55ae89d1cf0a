import { defineEventHandler } from 'h3'
import { showEditionSchema } from '../../../../core/files/fileItem'
import { accessOf } from '../../../utils/access'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Makes an edition the current one. */
export default defineEventHandler(async event => {
  const file = await (await useTrough()).library.showEdition(idOf(event), (await parseBody(event, showEditionSchema)).number)
  return (await accessOf(event)).shown([file])[0]
})
