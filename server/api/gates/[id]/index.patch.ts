import { defineEventHandler } from 'h3'
import { gateChangeSchema } from '../../../../core/gate/gate'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).gates.change(idOf(event), await parseBody(event, gateChangeSchema)))
