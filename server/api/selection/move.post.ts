import { defineEventHandler } from 'h3'
import { moveSchema } from '../../../core/files/selection'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).library.move(await parseBody(event, moveSchema, { most: MANY })))
