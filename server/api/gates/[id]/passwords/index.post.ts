import { defineEventHandler } from 'h3'
import { newPasswordSchema } from '../../../../../core/gate/gate'
import { SECRET, idOf, parseBody } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

export default defineEventHandler(async event =>
  (await useTrough()).gates.addPassword(idOf(event), await parseBody(event, newPasswordSchema, { most: SECRET })),
)
