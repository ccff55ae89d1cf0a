import { defineEventHandler } from 'h3'
import { accessOf } from '../../../../utils/access'
import { idOf } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

/** The personal links of a file. */
export default defineEventHandler(async event => {
  await (await accessOf(event)).mustFiles('see', [idOf(event)])
  return { items: await (await useTrough()).personalLinks.list(idOf(event)) }
})
