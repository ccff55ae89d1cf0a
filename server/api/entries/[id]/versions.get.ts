import { defineEventHandler } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** The states of an entry that were live. */
export default defineEventHandler(async event => ({ items: await (await useTrough()).entries.versions(idOf(event)) }))
