import { defineEventHandler } from 'h3'
import { useTrough } from '../../../utils/trough'

/** Numbers of before that were brought in. */
export default defineEventHandler(async () => (await useTrough()).bringing.list())
