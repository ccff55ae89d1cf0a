import { defineEventHandler } from 'h3'
import { removeSchema } from '../../../core/files/selection'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async (event) => {
  const { files, folders, ...way } = await parseBody(event, removeSchema)
  return (await useTrough()).library.remove({ files, folders }, way)
})
