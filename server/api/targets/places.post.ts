import { defineEventHandler } from 'h3'
import { targetSchema } from '../../../core/page/schema'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Where a target is led to or shown, and bundles that hold it; asked by POST, since it may be a long address. */
export default defineEventHandler(async event => (await useTrough()).replacing.places(await parseBody(event, targetSchema)))
