import { defineEventHandler } from 'h3'
import { hookChangeSchema } from '../../../../core/hooks/hook'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).hooks.change(idOf(event), await parseBody(event, hookChangeSchema)))
