import { describe, expect, it } from 'vitest'
import type { Logged } from './accessLog'
import { LogCount, pathOf, WholeSizes } from './logCount'

const BROWSER = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0'
const NOON = Date.UTC(2025, 2, 1, 12)
const logged = (change: Partial<Logged> = {}): Logged => ({
  at: NOON,
  address: '192.0.2.1',
  method: 'GET',
  path: '/old/list.pdf',
  status: 200,
  bytes: 1000,
  referer: '',
  userAgent: BROWSER,
  ...change,
})
const counting = (lines: Logged[], before = Number.MAX_SAFE_INTEGER) => {
  const whole = new WholeSizes()
  for (const line of lines) whole.add(pathOf(line.path), line)
  const count = new LogCount({
    fileAt: path => (path === '/old/list.pdf' ? { id: 'list', sizes: [1200] } : undefined),
    whole,
    isRobot: agent => !agent || /bot/.test(agent),
    hosts: ['marlpit.example'],
    before,
  })
  return lines.map(line => {
    const found = count.count(line)
    return typeof found === 'string' ? found : found.file
  })
}
const others = { address: '192.0.2.9' }

describe('a log', () => {
  it('is counted by the rules that hold here: double clicks, robots, requests that give no file', () => {
    expect(
      counting([
        logged(),
        logged({ at: NOON + 29_000 }),
        logged({ at: NOON + 58_000 }),
        logged({ at: NOON + 90_000 }),
        logged(others),
        logged({ userAgent: 'Examplebot/1.0' }),
        logged({ userAgent: '' }),
        logged({ method: 'HEAD' }),
        logged({ status: 304, bytes: null }),
        logged({ status: 404 }),
        logged({ path: '/elsewhere' }),
      ]),
    ).toEqual(['list', 'repeated', 'repeated', 'list', 'list', 'robot', 'robot', 'notAsked', 'notAsked', 'notAsked', 'other'])
  })

  it('knows what broke off by what others were sent, or by an edition', () => {
    expect(counting([logged(), logged({ ...others }), logged({ address: '192.0.2.2', bytes: 400 })])).toEqual(['list', 'list', 'broken'])
    // One that has the bytes of an edition, and one that has not.
    expect(counting([logged({ bytes: 1200 }), logged({ ...others, bytes: 700 })])).toEqual(['list', 'broken'])
    // Where nothing is known, the most that was sent.
    expect(counting([logged({ bytes: 900 }), logged({ ...others, bytes: 700 })])).toEqual(['list', 'broken'])
    expect(counting([logged({ bytes: null })])).toEqual(['list'])
  })

  it('puts pieces together that one visitor was sent within a day', () => {
    const piece = (at: number, bytes: number, address = '192.0.2.3') => logged({ at, bytes, status: 206, address })
    const whole = [logged(), logged(others)]
    expect(counting([...whole, piece(NOON, 600), piece(NOON + 1000, 400), piece(NOON + 2000, 100)]).slice(2)).toEqual([
      'broken',
      'list',
      'broken',
    ])
    expect(counting([...whole, piece(NOON, 600), piece(NOON, 400, '192.0.2.4')]).slice(2)).toEqual(['broken', 'broken'])
    expect(counting([...whole, piece(NOON, 600), piece(NOON + 86_400_000, 400)]).slice(2)).toEqual(['broken', 'broken'])
    // Pieces alone do not say how long the whole is, unless an edition does.
    expect(counting([piece(NOON, 600)])).toEqual(['broken'])
  })

  it('stops where counting here began', () => {
    expect(counting([logged({ at: NOON - 1 }), logged({ ...others, at: NOON })], NOON)).toEqual(['list', 'later'])
  })

  it('tells other sites and campaigns, and takes addresses however they are written', () => {
    const whole = new WholeSizes()
    const count = new LogCount({
      fileAt: path => (path === '/a%20b.pdf' ? { id: 'f', sizes: [] } : undefined),
      whole,
      isRobot: () => false,
      hosts: ['marlpit.example'],
      before: Infinity,
    })
    const one = logged({
      path: 'http://marlpit.example/a%20%62.pdf?from=poster&x=1',
      referer: 'https://www.kilnclub.example/list?q=secret',
    })
    expect(count.count(one)).toMatchObject({ file: 'f', campaign: 'poster', referrer: 'kilnclub.example', referrerPath: '/list' })
    expect(count.count(logged({ path: '/a%20b.pdf', referer: 'https://marlpit.example/', address: '192.0.2.8' }))).toMatchObject({
      referrer: '',
    })
  })
})
