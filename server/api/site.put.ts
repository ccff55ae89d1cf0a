import { defineEventHandler } from 'h3'
import { siteChangeSchema } from '../services/site/site'
import { accessOf } from '../utils/access'
import { parseBody } from '../utils/request'
import { useTrough } from '../utils/trough'

export default defineEventHandler(async event => {
  const { site } = await useTrough()
  const change = await parseBody(event, siteChangeSchema)
  // Links into accounts are sent with it.
  if (change.address !== undefined && change.address !== (await site.get()).address) (await accessOf(event)).mustBeOwner()
  return site.set(change)
})
