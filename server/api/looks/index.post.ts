import { defineEventHandler } from 'h3'
import { newLookSchema } from '../../../core/look/look'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).looks.create(await parseBody(event, newLookSchema)))
