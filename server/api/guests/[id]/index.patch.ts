import { defineEventHandler } from 'h3'
import { guestChangeSchema } from '../../../../core/guests/guest'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).guests.change(idOf(event), await parseBody(event, guestChangeSchema)))
