import { defineEventHandler, getRequestURL } from 'h3'
import { newPersonalLinkSchema } from '../../../../../core/gate/personalLink'
import { accessOf } from '../../../../utils/access'
import { idOf, parseBody } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

export default defineEventHandler(async event => {
  await (await accessOf(event)).mustFiles('see', [idOf(event)])
  return (await useTrough()).personalLinks.create(idOf(event), await parseBody(event, newPersonalLinkSchema), getRequestURL(event).origin)
})
