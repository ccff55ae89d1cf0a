import { defineEventHandler } from 'h3'
import { mustBeStored } from '../../../services/files/items'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** What is in a file: its text, its tables, its entries. */
export default defineEventHandler(async event => {
  const { library, looking } = await useTrough()
  return looking.contents(mustBeStored(await library.get(idOf(event))))
})
