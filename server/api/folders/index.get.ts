import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

/** Every folder outside the bin, and those in it. */
export default defineEventHandler(async () => {
  const { library } = await useTrough()
  return { items: await library.folders.list(), binned: await library.binnedFolders() }
})
