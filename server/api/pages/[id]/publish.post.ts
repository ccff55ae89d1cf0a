import { defineEventHandler } from 'h3'
import { publishSchema } from '../../../../core/page/item'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).pages.publish(idOf(event), await parseBody(event, publishSchema)))
