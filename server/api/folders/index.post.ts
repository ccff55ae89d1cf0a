import { defineEventHandler } from 'h3'
import { newFolderSchema } from '../../../core/folders/folderItem'
import { accessOf } from '../../utils/access'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => {
  const asked = await parseBody(event, newFolderSchema)
  ;(await accessOf(event)).mustPlace('put', asked.parent)
  return (await useTrough()).library.folders.create(asked)
})
