import { defineEventHandler } from 'h3'
import { personChangeSchema } from '../../../../core/people/person'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Changes what somebody may do. */
export default defineEventHandler(async event => (await useTrough()).people.change(idOf(event), await parseBody(event, personChangeSchema)))
