import { defineEventHandler } from 'h3'
import { removeSchema } from '../../../core/files/selection'
import { accessOf } from '../../utils/access'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => {
  const { files, folders, ...way } = await parseBody(event, removeSchema, { most: MANY })
  const access = await accessOf(event)
  await access.mustFiles('delete', files)
  access.mustFolders('delete', folders)
  // Each way on changes what visitors find.
  if (way.replaceBy !== undefined || way.takeOff || way.despite) access.must('publish')
  if (way.replaceBy !== undefined) await access.mustFiles('see', [way.replaceBy])
  return (await useTrough()).library.remove({ files, folders }, way)
})
