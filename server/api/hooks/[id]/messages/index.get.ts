import { defineEventHandler } from 'h3'
import { idOf } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

/** What a service was told. */
export default defineEventHandler(async event => ({ items: await (await useTrough()).hooks.messages(idOf(event)) }))
