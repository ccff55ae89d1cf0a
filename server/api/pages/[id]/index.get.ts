import { defineEventHandler } from 'h3'
import { fileIds, referencesIn } from '../../../../core/page/targets'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** A page with the files its draft leads to and the downloads of each of its placements. */
export default defineEventHandler(async event => {
  const { pages, library } = await useTrough()
  const page = await pages.get(idOf(event))
  const files = await library.byId([...fileIds(referencesIn(page.draft)), ...(page.picture ? [page.picture] : [])])
  return { ...page, files, downloads: await pages.downloads(page.id) }
})
