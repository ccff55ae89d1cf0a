import { defineEventHandler } from 'h3'
import { unpackSchema } from '../../../../core/files/clash'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Begins to unpack a zip into the library. */
export default defineEventHandler(async event => (await useTrough()).unpacking.unpack(idOf(event), await parseBody(event, unpackSchema)))
