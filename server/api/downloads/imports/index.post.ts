import { defineEventHandler } from 'h3'
import { importQuerySchema } from '../../../../core/tally/brought/brought'
import { parseQuery } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Brings in numbers of before. The body is the file as it is. */
export default defineEventHandler(async event => (await useTrough()).bringing.bring(event.node.req, parseQuery(event, importQuerySchema)))
