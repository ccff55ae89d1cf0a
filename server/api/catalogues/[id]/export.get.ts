import { defineEventHandler, setResponseHeaders } from 'h3'
import { exportQuerySchema } from '../../../../core/catalogue/entry'
import { accessOf } from '../../../utils/access'
import { idOf, parseQuery } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** The entries of a catalogue as a table, or as a zip with that and their files. */
export default defineEventHandler(async event => {
  const { format } = parseQuery(event, exportQuerySchema)
  const { entryExport, delivery } = await useTrough()
  if (format === 'zip') {
    const access = await accessOf(event)
    const zip = await entryExport.zip(idOf(event), items => access.seen(items, ({ id }) => id))
    return delivery.showZip(event.node.req, event.node.res, zip)
  }
  const { bytes, mediaType, fileName } = await entryExport.write(idOf(event), format)
  setResponseHeaders(event, { 'Content-Type': mediaType, 'Content-Disposition': `attachment; filename="${fileName}"` })
  return bytes
})
