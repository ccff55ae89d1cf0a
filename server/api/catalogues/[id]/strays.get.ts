import { defineEventHandler } from 'h3'
import { accessOf } from '../../../utils/access'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Files of the folders that fields take theirs from which fit no entry beyond doubt. */
export default defineEventHandler(async event => {
  const access = await accessOf(event)
  const strays = await (await useTrough()).folderFields.strays(idOf(event))
  const seen = strays.map(async ({ field, files }) => ({ field, files: await access.seen(files, ({ file }) => file) }))
  return { items: (await Promise.all(seen)).filter(({ files }) => files.length) }
})
