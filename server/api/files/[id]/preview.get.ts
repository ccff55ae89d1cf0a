import { createReadStream } from 'node:fs'
import { defineEventHandler, sendStream, setResponseHeaders } from 'h3'
import { previewQuerySchema } from '../../../../core/files/fileItem'
import { notFound } from '../../../../core/problem'
import { idOf, parseQuery } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** The picture of the first page of a file as it is, or of one of its editions. */
export default defineEventHandler(async event => {
  const { library, editions, reading } = await useTrough()
  const { edition } = parseQuery(event, previewQuerySchema)
  const { sha256, preview } = edition === undefined ? await library.get(idOf(event)) : await editions.get(idOf(event), edition)
  if (preview !== 'ready') throw notFound('picture')
  setResponseHeaders(event, { 'Content-Type': 'image/webp', 'Cache-Control': 'private, max-age=3600', 'ETag': `"${sha256.slice(0, 32)}"` })
  return sendStream(event, createReadStream(reading.pictureOf(sha256)))
})
