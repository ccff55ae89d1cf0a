import { defineEventHandler } from 'h3'
import { readAgainSchema } from '../../../core/files/selection'
import { accessOf } from '../../utils/access'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Reads some files again, or all that could not be read. */
export default defineEventHandler(async event => {
  const { library, reading } = await useTrough()
  const { files } = await parseBody(event, readAgainSchema, { most: MANY })
  const access = await accessOf(event)
  if (files) await access.mustFiles('edit', files)
  else access.mustEverywhere('edit')
  await reading.again(files && (await library.byId(files)).map(file => file.sha256))
  return reading.progress()
})
