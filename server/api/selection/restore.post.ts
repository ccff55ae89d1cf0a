import { defineEventHandler } from 'h3'
import { selectionSchema } from '../../../core/files/selection'
import { accessOf } from '../../utils/access'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => {
  const selection = await parseBody(event, selectionSchema, { most: MANY })
  const access = await accessOf(event)
  await access.mustFiles('delete', selection.files)
  access.mustFolders('delete', selection.folders)
  return (await useTrough()).library.restore(selection)
})
