import { defineEventHandler } from 'h3'
import { folderChangeSchema } from '../../../../core/folders/folderItem'
import { accessOf } from '../../../utils/access'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => {
  const change = await parseBody(event, folderChangeSchema)
  const access = await accessOf(event)
  if (change.name !== undefined) access.mustFolders('edit', [idOf(event)])
  if (change.gate !== undefined) access.must('gates')
  if (change.see !== undefined || change.found !== undefined) access.must('publish')
  return access.folders([await (await useTrough()).library.folders.change(idOf(event), change)])[0]
})
