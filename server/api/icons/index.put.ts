import { defineEventHandler } from 'h3'
import { siteIconSchema } from '../../../core/shelf/icons'
import { accessOf } from '../../utils/access'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => {
  const icon = await parseBody(event, siteIconSchema)
  await (await accessOf(event)).mustFiles('see', icon.icon.kind === 'picture' ? [icon.icon.file] : [])
  return { items: await (await useTrough()).siteIcons.set(icon) }
})
