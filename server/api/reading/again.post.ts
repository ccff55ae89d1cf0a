import { defineEventHandler } from 'h3'
import { readAgainSchema } from '../../../core/files/selection'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Reads some files again, or all that could not be read. */
export default defineEventHandler(async event => {
  const { library, reading } = await useTrough()
  const { files } = await parseBody(event, readAgainSchema, { most: MANY })
  await reading.again(files && (await library.byId(files)).map(file => file.sha256))
  return reading.progress()
})
