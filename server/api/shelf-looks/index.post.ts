import { defineEventHandler } from 'h3'
import { newShelfLookSchema } from '../../../core/shelf/shelfLook'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).shelfLooks.create(await parseBody(event, newShelfLookSchema)))
