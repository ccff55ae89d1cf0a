import { defineEventHandler, getRouterParam } from 'h3'
import { idOf } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).gates.removePassword(idOf(event), getRouterParam(event, 'password')!))
