import { expect, it } from 'vitest'
import { listenOn, logsRequests, ownAddress, readEnvironment } from './environment'

it('reads what the environment asks for, with what is usual where it is silent', () => {
  expect(readEnvironment({})).toEqual({ data: './data', siteAddress: '', proxies: [], programs: [], front: undefined })
  expect(readEnvironment({ TROUGH_DATA: '/srv', TROUGH_FRONT_PREFIX: '/_store/', TROUGH_PROXIES: '10.0.0.2, 10.0.0.3' })).toEqual({
    data: '/srv',
    siteAddress: '',
    proxies: ['10.0.0.2', '10.0.0.3'],
    programs: [],
    front: { prefix: '/_store/', port: 4181 },
  })
  expect(readEnvironment({ PATH: '/usr/bin:/bin' }).programs).toEqual(['/usr/bin', '/bin'])
  expect(readEnvironment({ PATH: '/usr/bin', TROUGH_PROGRAMS: '/opt/office' }).programs).toEqual(['/opt/office'])
  expect(readEnvironment({ PATH: '/usr/bin', TROUGH_PROGRAMS: 'none' }).programs).toEqual([])
  expect(readEnvironment({ TROUGH_FRONT_PREFIX: '/_store/' }).proxies).toEqual(['127.0.0.1', '::1'])
})

it.each([{ TROUGH_FRONT_PREFIX: 'store' }, { TROUGH_FRONT_LOG_PORT: 'many' }])('says what is wrong with %j', environment => {
  expect(() => readEnvironment(environment)).toThrow(/TROUGH_FRONT/)
})

it('listens on a port, or on the socket that is handed over to this very process (sd_listen_fds(3))', () => {
  expect(listenOn({}, 42)).toEqual({ port: 4180, host: '127.0.0.1' })
  expect(listenOn({ PORT: '', HOST: '0.0.0.0' }, 42)).toEqual({ port: 4180, host: '0.0.0.0' })
  expect(listenOn({ PORT: '0' }, 42)).toEqual({ port: 0, host: '127.0.0.1' })
  expect(listenOn({ LISTEN_FDS: '1', LISTEN_PID: '42' }, 42)).toEqual({ fd: 3 })
  expect(listenOn({ LISTEN_FDS: '1', LISTEN_PID: '41', PORT: '80' }, 42)).toEqual({ port: 80, host: '127.0.0.1' })
  // A literal of IPv6 stands in brackets (RFC 3986, section 3.2.2).
  expect([{ HOST: '::', PORT: '80' }, {}, { HOST: '::1' }].map(ownAddress)).toEqual([
    'http://localhost:80',
    'http://127.0.0.1:4180',
    'http://[::1]:4180',
  ])
})

it.each([
  [{ PORT: 'http' }, /PORT is a port/],
  [{ PORT: '70000' }, /PORT is a port/],
  [{ TROUGH_LOG: 'all' }, /TROUGH_LOG is/],
] as const)('says what is wrong with %j', (environment, words) => {
  expect(() => listenOn(environment, 42)).toThrow(words)
})

it('logs requests where that is asked for', () =>
  expect([logsRequests({}), logsRequests({ TROUGH_LOG: 'requests' })]).toEqual([false, true]))
