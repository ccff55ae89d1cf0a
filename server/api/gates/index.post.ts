import { defineEventHandler } from 'h3'
import { newGateSchema } from '../../../core/gate/gate'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).gates.create(await parseBody(event, newGateSchema)))
