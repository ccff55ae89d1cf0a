import { createReadStream } from 'node:fs'
import { defineEventHandler, sendStream, setResponseHeaders } from 'h3'
import { notFound } from '../../../../core/problem'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** The picture of a file's first page. */
export default defineEventHandler(async (event) => {
  const { library, reading } = await useTrough()
  const { sha256, preview } = await library.get(idOf(event))
  if (preview !== 'ready') throw notFound('picture')
  setResponseHeaders(event, { 'Content-Type': 'image/webp', 'Cache-Control': 'private, max-age=3600', 'ETag': `"${sha256.slice(0, 32)}"` })
  return sendStream(event, createReadStream(reading.pictureOf(sha256)))
})
