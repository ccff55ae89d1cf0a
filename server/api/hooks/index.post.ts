import { defineEventHandler } from 'h3'
import { newHookSchema } from '../../../core/hooks/hook'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).hooks.create(await parseBody(event, newHookSchema)))
