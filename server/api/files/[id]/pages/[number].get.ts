import { defineEventHandler, getRouterParam, setResponseHeaders } from 'h3'
import { notFound } from '../../../../../core/problem'
import { idOf } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

/** The picture of a page of a PDF. */
export default defineEventHandler(async event => {
  const { library, looking } = await useTrough()
  const file = await library.get(idOf(event))
  const number = Number(getRouterParam(event, 'number'))
  if (!(Number.isInteger(number) && number >= 1 && number <= (file.facts.pages ?? 0))) throw notFound('page')
  const picture = await looking.page(file, number)
  setResponseHeaders(event, {
    'Content-Type': 'image/webp',
    'Cache-Control': 'private, no-cache',
    'ETag': `"${file.sha256.slice(0, 32)}-${number}"`,
  })
  return picture
})
