import { defineEventHandler } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).pages.restore(idOf(event)))
