import { defineEventHandler } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Makes what each entry is laid out in. */
export default defineEventHandler(async event => ({ layout: await (await useTrough()).layingOut.layout(idOf(event)) }))
