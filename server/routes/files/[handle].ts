import { defineEventHandler } from 'h3'
import { Problem } from '../../../core/problem'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async (event) => {
  const { req, res } = event.node
  if (req.method !== 'GET' && req.method !== 'HEAD') {
    res.setHeader('Allow', 'GET, HEAD')
    throw new Problem(405, 'A file can only be read.', 'Use GET.')
  }
  const { delivery } = await useTrough()
  const [, search = ''] = req.url!.split('?', 2)
  const query = new URLSearchParams(search)
  const moved = await delivery.deliver(req, res, event.context.params!.handle!, {
    save: query.has('save'), open: query.has('open'), edition: query.get('edition'), at: query.get('at'),
  })
  if (moved !== undefined) {
    // 308 keeps the method, and lasts (RFC 9110, section 15.4.9).
    res.writeHead(308, { 'Location': `/files/${moved}${search && `?${search}`}`, 'Cache-Control': 'no-cache', 'Content-Length': 0 }).end()
  }
})
