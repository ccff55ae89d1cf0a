import { defineEventHandler } from 'h3'
import { siteIconSchema } from '../../../core/shelf/icons'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => ({
  items: await (await useTrough()).siteIcons.remove(parseQuery(event, siteIconSchema.shape.of)),
}))
