import { defineEventHandler } from 'h3'
import { someFilesSchema } from '../../../core/files/selection'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Files by identity. */
export default defineEventHandler(async event => ({
  items: await (await useTrough()).library.byId((await parseBody(event, someFilesSchema, { most: MANY })).files),
}))
