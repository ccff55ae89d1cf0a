import { defineEventHandler } from 'h3'
import { selectionSchema } from '../../../core/files/selection'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).library.restore(await parseBody(event, selectionSchema)))
