import { defineEventHandler } from 'h3'
import { accessOf } from '../../../utils/access'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** The file a finished upload became, and the other files that hold the same bytes. */
export default defineEventHandler(async event => {
  const { uploads, library } = await useTrough()
  const access = await accessOf(event)
  const file = await uploads.fileOf(idOf(event))
  await access.mustFiles('see', [file.id])
  const twins = access.shown(await library.twins(file))
  return { file: access.shown([file])[0], twins: twins.map(({ id, title, handle }) => ({ id, title, handle })) }
})
