import { defineEventHandler } from 'h3'
import { groupSchema } from '../../../../core/guests/guest'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event =>
  (await useTrough()).guests.renameGroup(idOf(event), (await parseBody(event, groupSchema)).name),
)
