import { defineEventHandler } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Entries in the bin, and fields. */
export default defineEventHandler(async event => {
  const { entries, fieldBin } = await useTrough()
  return { items: await entries.binned(idOf(event)), fields: await fieldBin.binned(idOf(event)) }
})
