import { expect, it } from 'vitest'
import { API_REQUESTS } from '../../server/testing/apiRequests'
import { ROUTES, needOf } from './routes'

it('every request of the API says what it needs, and nothing else does', () => {
  expect(API_REQUESTS.filter(request => !(request in ROUTES))).toEqual([])
  expect(Object.keys(ROUTES).filter(route => !API_REQUESTS.includes(route))).toEqual([])
})

it('a request is known by its path, what is named word for word first', () => {
  expect(needOf('GET', '/files/ids')).toEqual({ route: 'GET /files/ids', need: { somewhere: 'see' } })
  expect(needOf('GET', '/files/abc')).toEqual({ route: 'GET /files/:id', need: { file: 'see' }, id: 'abc' })
  expect(needOf('DELETE', '/pages/bin/abc')?.route).toBe('DELETE /pages/bin/:id')
  expect(needOf('POST', '/account/sessions/end-others')?.need).toBe('signed in')
})

it('who only asks for the head of an answer needs what the answer needs, and a method of one’s own needs what all do', () => {
  expect(needOf('HEAD', '/outbox')?.need).toBe('owner')
  expect(needOf('PATCH', '/uploads/abc')?.route).toBe('ALL /uploads/:id')
})

it.each([
  ['GET', '/nothing'],
  ['GET', ''],
  ['PUT', '/files'],
  ['GET', '/files/abc/'],
  ['GET', '/files//bytes'],
  ['GET', '/people/../session'],
])('%s %s is no request', (method, path) => expect(needOf(method, path)).toBeUndefined())
