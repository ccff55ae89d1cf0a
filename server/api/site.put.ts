import { defineEventHandler } from 'h3'
import { siteChangeSchema } from '../services/site/site'
import { parseBody } from '../utils/request'
import { useTrough } from '../utils/trough'

export default defineEventHandler(async event => (await useTrough()).site.set(await parseBody(event, siteChangeSchema)))
