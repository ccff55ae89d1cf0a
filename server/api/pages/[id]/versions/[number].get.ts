import { defineEventHandler, getRouterParam } from 'h3'
import { z } from 'zod'
import { idOf, parse } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

const numberSchema = z.coerce.number('Versions have numbers.').int().min(1)

export default defineEventHandler(async event =>
  (await useTrough()).pages.version(idOf(event), parse(numberSchema, getRouterParam(event, 'number'))),
)
