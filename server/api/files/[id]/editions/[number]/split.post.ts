import { defineEventHandler } from 'h3'
import { editionOf } from '../../../../../utils/request'
import { useTrough } from '../../../../../utils/trough'

/** Makes an edition a file of its own. */
export default defineEventHandler(async event => {
  const { id, number } = editionOf(event)
  return (await useTrough()).editions.split(id, number)
})
