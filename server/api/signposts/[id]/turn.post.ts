import { defineEventHandler } from 'h3'
import { turnSchema } from '../../../../core/signposts/signpostItem'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).signposts.turn(idOf(event), (await parseBody(event, turnSchema)).file))
