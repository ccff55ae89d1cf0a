import { defineEventHandler, setResponseHeaders } from 'h3'
import { exportQuerySchema } from '../../../../core/catalogue/entry'
import { idOf, parseQuery } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** The entries of a catalogue as a table. */
export default defineEventHandler(async event => {
  const { format } = parseQuery(event, exportQuerySchema)
  const { bytes, mediaType, fileName } = await (await useTrough()).entryExport.write(idOf(event), format)
  setResponseHeaders(event, { 'Content-Type': mediaType, 'Content-Disposition': `attachment; filename="${fileName}"` })
  return bytes
})
