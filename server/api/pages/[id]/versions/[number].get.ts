import { defineEventHandler, getRouterParam } from 'h3'
import { countedInAddressSchema } from '../../../../../core/counted'
import { idOf, parse } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

export default defineEventHandler(async event =>
  (await useTrough()).pages.version(idOf(event), parse(countedInAddressSchema, getRouterParam(event, 'number'))),
)
