import { defineEventHandler } from 'h3'
import { Problem } from '../../core/problem'

/** What no handler answers: never the desk's page in place of JSON. */
export default defineEventHandler(event => {
  throw new Problem(404, 'There is nothing at this address.', `${event.method} ${event.path.split('?')[0]} is not part of the API.`)
})
