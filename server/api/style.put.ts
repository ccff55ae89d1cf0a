import { defineEventHandler } from 'h3'
import { siteStyleSchema } from '../../core/look/siteStyle'
import { parseBody } from '../utils/request'
import { useTrough } from '../utils/trough'

export default defineEventHandler(async event => (await useTrough()).looks.setStyle(await parseBody(event, siteStyleSchema)))
