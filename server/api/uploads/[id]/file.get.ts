import { defineEventHandler } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** The file a finished upload became, and the other files that hold the same bytes. */
export default defineEventHandler(async event => {
  const { uploads, library } = await useTrough()
  const file = await uploads.fileOf(idOf(event))
  const twins = await library.twins(file)
  return { file, twins: twins.map(({ id, title, handle }) => ({ id, title, handle })) }
})
