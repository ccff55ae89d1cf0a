import { defineEventHandler } from 'h3'
import { editionOf } from '../../../../../utils/request'
import { useTrough } from '../../../../../utils/trough'

/** Throws an edition away that visitors do not get. */
export default defineEventHandler(async event => {
  const { id, number } = editionOf(event)
  await (await useTrough()).editions.discard(id, number)
  return null
})
