import { defineEventHandler } from 'h3'
import { arrivalsFor } from '../../utils/arrivals'
import { idOf } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => (await arrivalsFor(event, [await (await useTrough()).arrivals.get(idOf(event))]))[0])
