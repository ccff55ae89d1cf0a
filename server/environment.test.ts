import { expect, it } from 'vitest'
import { readEnvironment } from './environment'

it('reads what the environment asks for, with what is usual where it is silent', () => {
  expect(readEnvironment({})).toEqual({ data: './data', siteAddress: '', proxies: [], front: undefined })
  expect(readEnvironment({ TROUGH_DATA: '/srv', TROUGH_FRONT_PREFIX: '/_store/', TROUGH_PROXIES: '10.0.0.2, 10.0.0.3' }))
    .toEqual({ data: '/srv', siteAddress: '', proxies: ['10.0.0.2', '10.0.0.3'], front: { prefix: '/_store/', port: 4181 } })
  expect(readEnvironment({ TROUGH_FRONT_PREFIX: '/_store/' }).proxies).toEqual(['127.0.0.1', '::1'])
})

it.each([{ TROUGH_FRONT_PREFIX: 'store' }, { TROUGH_FRONT_LOG_PORT: 'many' }])('says what is wrong with %j', (environment) => {
  expect(() => readEnvironment(environment)).toThrow(/TROUGH_FRONT/)
})
