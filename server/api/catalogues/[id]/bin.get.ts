import { defineEventHandler } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Entries in the bin. */
export default defineEventHandler(async event => ({ items: await (await useTrough()).entries.binned(idOf(event)) }))
