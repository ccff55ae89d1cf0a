import { expect, it } from 'vitest'
import { API_REQUESTS } from '../../server/testing/apiRequests'
import { TOLD, UNTOLD, actOf, wordsOfAct } from './acts'

/** Every request of the API that may change something. */
const requests = API_REQUESTS.filter(request => !request.startsWith('GET '))

it('every request that may change something is told in the journal, or said not to be', () => {
  const known = new Set([...TOLD, ...UNTOLD])
  expect(requests.filter(request => !known.has(request))).toEqual([])
  expect([...known].filter(request => !requests.includes(request))).toEqual([])
})

it('a request is told with what it was done to', () => {
  expect(actOf('POST', '/pages/abc/publish')).toEqual({ act: 'POST /pages/:id/publish', about: 'abc' })
  expect(actOf('PUT', '/pages/abc/draft')).toBeUndefined()
  expect(actOf('PUT', '/site')).toEqual({ act: 'PUT /site', about: '' })
  expect(wordsOfAct('POST /pages/:id/publish')).toEqual({ words: 'put a page live', subject: 'page' })
  expect(wordsOfAct('signed-in').words).toBe('signed in')
})
