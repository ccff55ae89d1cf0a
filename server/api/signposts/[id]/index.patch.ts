import { defineEventHandler } from 'h3'
import { signpostChangeSchema } from '../../../../core/signposts/signpostItem'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event =>
  (await useTrough()).signposts.change(idOf(event), await parseBody(event, signpostChangeSchema)),
)
