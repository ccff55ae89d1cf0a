import { defineEventHandler } from 'h3'
import { fileQuerySchema } from '../../../core/files/query'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).library.list(parseQuery(event, fileQuerySchema)))
