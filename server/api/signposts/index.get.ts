import { defineEventHandler } from 'h3'
import { accessOf } from '../../utils/access'
import { useTrough } from '../../utils/trough'

/** All signposts, with the files they point at. */
export default defineEventHandler(async event => {
  const { signposts, library } = await useTrough()
  const items = await signposts.list()
  return { items, files: (await accessOf(event)).shown(await library.byId(items.flatMap(({ file }) => file ?? []))) }
})
