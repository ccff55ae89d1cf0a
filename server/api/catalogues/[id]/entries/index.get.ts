import { defineEventHandler } from 'h3'
import { idOf } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

/** All entries of a catalogue, in their own order. */
export default defineEventHandler(async event => ({ items: await (await useTrough()).entries.list(idOf(event)) }))
