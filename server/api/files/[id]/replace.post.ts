import { defineEventHandler } from 'h3'
import { replaceSchema } from '../../../../core/files/item'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Puts another file in the place of one, everywhere. */
export default defineEventHandler(async event => (await useTrough()).library.replace(idOf(event), (await parseBody(event, replaceSchema)).by))
