import { defineEventHandler } from 'h3'
import { importQuerySchema } from '../../../../core/tally/brought/brought'
import { parseQuery } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Says what is in a file of numbers of before, and brings nothing in. The body is the file as it is. */
export default defineEventHandler(async event => (await useTrough()).bringing.look(event.node.req, parseQuery(event, importQuerySchema)))
