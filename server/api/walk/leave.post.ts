import { defineEventHandler } from 'h3'
import { leaveSchema } from '../../../core/walk/finding'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Leaves a finding as it is. */
export default defineEventHandler(async event => {
  const { key, because } = await parseBody(event, leaveSchema)
  await (await useTrough()).walk.leave(key, because)
  return null
})
