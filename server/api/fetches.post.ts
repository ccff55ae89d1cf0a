import { defineEventHandler } from 'h3'
import { fetchSchema } from '../../core/files/fetchForm'
import { accessOf } from '../utils/access'
import { parseBody } from '../utils/request'
import { useTrough } from '../utils/trough'

/** Begins to fetch a file from a web address. */
export default defineEventHandler(async event => {
  const order = await parseBody(event, fetchSchema)
  const access = await accessOf(event)
  access.mustPlace('put', order.folder)
  return (await useTrough()).fetching.fetch(order, access.by)
})
