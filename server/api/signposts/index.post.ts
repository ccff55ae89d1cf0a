import { defineEventHandler } from 'h3'
import { newSignpostSchema } from '../../../core/signposts/signpostItem'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).signposts.create(await parseBody(event, newSignpostSchema)))
