import { defineEventHandler } from 'h3'
import { importFileSchema } from '../../../core/catalogue/import'
import { accessOf } from '../../utils/access'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Looks into a file of the library as a table, and brings nothing in. */
export default defineEventHandler(async event => {
  const { file, catalogue } = await parseBody(event, importFileSchema)
  await (await accessOf(event)).mustFiles('see', [file])
  return (await useTrough()).importing.lookAtFile(file, catalogue)
})
