import { defineEventHandler } from 'h3'
import { editionOf } from '../../../../../utils/request'
import { useTrough } from '../../../../../utils/trough'

/** An edition held against the one that visitors get. */
export default defineEventHandler(async event => {
  const { id, number } = editionOf(event)
  return (await useTrough()).editions.compare(id, number)
})
