import { defineEventHandler } from 'h3'
import { rewordSchema } from '../../../core/walk/finding'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Gives buttons and links the words that fit what they lead to now. */
export default defineEventHandler(async event =>
  (await useTrough()).mending.reword((await parseBody(event, rewordSchema, { most: MANY })).labels),
)
