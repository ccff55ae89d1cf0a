import { defineEventHandler } from 'h3'
import { removeSchema } from '../../../core/files/selection'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => {
  const { files, folders, ...way } = await parseBody(event, removeSchema, { most: MANY })
  return (await useTrough()).library.remove({ files, folders }, way)
})
