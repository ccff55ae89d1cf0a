import { defineEventHandler } from 'h3'
import { moveSchema } from '../../../core/files/selection'
import { accessOf } from '../../utils/access'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => {
  const move = await parseBody(event, moveSchema, { most: MANY })
  const access = await accessOf(event)
  await access.mustFiles('edit', move.files)
  access.mustFolders('edit', move.folders)
  access.mustPlace('put', move.to)
  return (await useTrough()).library.move(move)
})
