import { defineEventHandler } from 'h3'
import { changedPasswordSchema } from '../../../../../core/gate/gate'
import { SECRET, idOf, parseBody } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

/** One password in the place of all there are. */
export default defineEventHandler(async event =>
  (await useTrough()).gates.changePassword(idOf(event), await parseBody(event, changedPasswordSchema, { most: SECRET })),
)
