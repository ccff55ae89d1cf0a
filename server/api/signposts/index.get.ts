import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

/** All signposts, with the files they point at. */
export default defineEventHandler(async () => {
  const { signposts, library } = await useTrough()
  const items = await signposts.list()
  return { items, files: await library.byId(items.flatMap(({ file }) => file ?? [])) }
})
