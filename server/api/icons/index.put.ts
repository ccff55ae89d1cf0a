import { defineEventHandler } from 'h3'
import { siteIconSchema } from '../../../core/shelf/icons'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => ({
  items: await (await useTrough()).siteIcons.set(await parseBody(event, siteIconSchema)),
}))
