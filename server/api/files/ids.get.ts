import { defineEventHandler } from 'h3'
import { fileFilterSchema } from '../../../core/files/query'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Identities of all files a filter lets through. */
export default defineEventHandler(async event => ({ ids: await (await useTrough()).library.ids(parseQuery(event, fileFilterSchema)) }))
