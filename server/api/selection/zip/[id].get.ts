import { defineEventHandler, sendStream, setResponseHeaders } from 'h3'
import { contentDisposition } from '../../../../core/http/disposition'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async (event) => {
  const { name, size, stream } = (await useTrough()).zipping.open(idOf(event))
  setResponseHeaders(event, {
    'Content-Type': 'application/zip', 'Content-Length': size, 'Content-Disposition': contentDisposition('attachment', name), 'Cache-Control': 'no-store',
  })
  return sendStream(event, stream())
})
