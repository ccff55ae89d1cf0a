import { readdirSync } from 'node:fs'

/** Every request of the API, from the names of its handlers (Nitro's file routing): `PATCH /files/:id`. */
export const API_REQUESTS = readdirSync('server/api', { recursive: true, encoding: 'utf8' })
  .filter(name => name.endsWith('.ts') && !name.includes('[...]'))
  .map(name => {
    const [, path, method = 'all'] = /^(.*?)(?:\.(get|post|put|patch|delete))?\.ts$/.exec(name)!
    return `${method.toUpperCase()} /${path!.replace(/(^|\/)index$/, '').replace(/\[(\w+)\]/g, ':$1')}`
  })
