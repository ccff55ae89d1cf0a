import { defineEventHandler } from 'h3'
import { fileIds, referencesIn } from '../../../../core/page/targets'
import { accessOf } from '../../../utils/access'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** A page with the files its draft leads to and the downloads of each of its placements. */
export default defineEventHandler(async event => {
  const { pages, library } = await useTrough()
  const access = await accessOf(event)
  const page = await pages.get(idOf(event))
  const ids = [...new Set([...fileIds(referencesIn(page.draft)), ...(page.picture ? [page.picture] : [])])]
  const [files, downloads] = await Promise.all([library.listed(ids), access.may('downloads') ? pages.downloads(page.id) : {}])
  return { ...page, files: access.shown(files), downloads }
})
