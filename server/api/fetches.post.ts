import { defineEventHandler } from 'h3'
import { fetchSchema } from '../../core/files/fetchForm'
import { parseBody } from '../utils/request'
import { useTrough } from '../utils/trough'

/** Begins to fetch a file from a web address. */
export default defineEventHandler(async event => (await useTrough()).fetching.fetch(await parseBody(event, fetchSchema)))
