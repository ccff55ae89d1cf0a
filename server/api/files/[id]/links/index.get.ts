import { defineEventHandler } from 'h3'
import { idOf } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

/** The personal links of a file. */
export default defineEventHandler(async event => ({ items: await (await useTrough()).personalLinks.list(idOf(event)) }))
