import { defineEventHandler } from 'h3'
import { restoreSchema } from '../../../core/files/selection'
import { accessOf } from '../../utils/access'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => {
  const { undo, ...selection } = await parseBody(event, restoreSchema, { most: MANY })
  const access = await accessOf(event)
  await access.mustFiles('delete', selection.files)
  access.mustFolders('delete', selection.folders)
  // Places are changed back with it.
  if (undo !== undefined) access.must('publish')
  return (await useTrough()).library.restore(selection, undo)
})
