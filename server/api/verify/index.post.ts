import { defineEventHandler } from 'h3'
import { verifyRequestSchema } from '../../../core/trust/trustReports'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Begins to read every stored byte again. */
export default defineEventHandler(async event => {
  const { verifying } = await useTrough()
  await verifying.start((await parseBody(event, verifyRequestSchema)).from)
  return verifying.state()
})
