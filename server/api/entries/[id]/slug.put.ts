import { defineEventHandler } from 'h3'
import { entrySlugSchema } from '../../../../core/catalogue/entry'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Moves an entry to another address. */
export default defineEventHandler(async event => {
  const { slug } = await parseBody(event, entrySlugSchema)
  return (await useTrough()).entries.moveTo(idOf(event), slug)
})
