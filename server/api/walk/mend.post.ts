import { defineEventHandler } from 'h3'
import { mendSchema } from '../../../core/walk/finding'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event =>
  (await useTrough()).mending.mend((await parseBody(event, mendSchema, { most: MANY })).keys),
)
