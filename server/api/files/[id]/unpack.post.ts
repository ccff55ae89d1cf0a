import { defineEventHandler } from 'h3'
import { unpackSchema } from '../../../../core/files/clash'
import { accessOf } from '../../../utils/access'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Begins to unpack a zip into the library. */
export default defineEventHandler(async event => {
  const { clash } = await parseBody(event, unpackSchema)
  const access = await accessOf(event)
  if (clash === 'edition') await access.mustFiles('renew', [idOf(event)])
  return (await useTrough()).unpacking.unpack(idOf(event), clash, access.by)
})
