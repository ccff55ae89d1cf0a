import { defineEventHandler } from 'h3'
import { describeSchema } from '../../../core/files/selection'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => ({
  before: await (await useTrough()).library.describe(await parseBody(event, describeSchema, { most: MANY })),
}))
