import { defineEventHandler } from 'h3'
import { despiteQuerySchema } from '../../../../core/page/pageItem'
import { idOf, parseQuery } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).pages.unpublish(idOf(event), parseQuery(event, despiteQuerySchema)))
