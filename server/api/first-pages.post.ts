import { defineEventHandler } from 'h3'
import { firstFactsSchema } from '../../core/site/firstFacts'
import { parseBody } from '../utils/request'
import { useTrough } from '../utils/trough'

/** Makes the first pages of a site, as far as they are still empty. */
export default defineEventHandler(async event => (await useTrough()).firstPages.make(await parseBody(event, firstFactsSchema)))
