import { defineEventHandler } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Another secret in the place of the one there is. */
export default defineEventHandler(async event => (await useTrough()).hooks.renewSecret(idOf(event)))
