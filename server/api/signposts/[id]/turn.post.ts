import { defineEventHandler } from 'h3'
import { turnSchema } from '../../../../core/signposts/signpostItem'
import { accessOf } from '../../../utils/access'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => {
  const { file } = await parseBody(event, turnSchema)
  await (await accessOf(event)).mustFiles('see', file ? [file] : [])
  return (await useTrough()).signposts.turn(idOf(event), file)
})
