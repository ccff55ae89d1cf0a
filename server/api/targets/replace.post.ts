import { defineEventHandler } from 'h3'
import { replaceSchema } from '../../../core/page/schema'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Puts one target in the place of another, everywhere. */
export default defineEventHandler(async event => {
  const { from, to } = await parseBody(event, replaceSchema)
  return (await useTrough()).replacing.replace(from, to)
})
