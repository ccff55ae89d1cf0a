import { defineEventHandler } from 'h3'
import { accessOf } from '../utils/access'
import { useTrough } from '../utils/trough'

export default defineEventHandler(async event => ({ items: await (await useTrough()).library.tags((await accessOf(event)).sight) }))
