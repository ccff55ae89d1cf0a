import { defineEventHandler } from 'h3'
import { accessOf } from '../../utils/access'
import { useTrough } from '../../utils/trough'

/** Every folder outside the bin, and those in it. */
export default defineEventHandler(async event => {
  const { library } = await useTrough()
  const access = await accessOf(event)
  return {
    items: access.folders(await library.folders.list()),
    binned: (await library.binnedFolders()).filter(({ id }) => access.sees(id)),
  }
})
