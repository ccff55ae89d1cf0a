import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Tree } from '../folders/folderTree'
import { ENGLISH } from '../testing/pages'
import { readAnswers, type GateField } from './fields'
import { CLOSED_GATE, OPEN_GATE, gateRuleSchema, newPasswordSchema } from './gate'
import { GATE_FIELDS, gatePageHtml, type GateSight } from './gatePage'
import { easyPassword } from './generate'
import { behindOf } from './asks'
import { passHolds, passText, readPass, type Pass } from './pass'
import { gateOf, gatesOf, standingIn } from './standing'
import { hasRoom, isLimited, timeOf } from './times'
import { wayBack } from './wayBack'

const folder = (id: string, parent: string | null, gate: string | null) => ({ id, parent, gate, name: id })
const TREE = new Tree([folder('a', null, 'trade'), folder('b', 'a', null), folder('c', 'b', 'open'), folder('d', 'c', 'staff')])

describe('the gate of a thing', () => {
  it.each([
    ['at the top', { gate: null, folder: null }, null],
    ['in a folder behind a gate', { gate: null, folder: 'a' }, 'trade'],
    ['further down', { gate: null, folder: 'b' }, 'trade'],
    ['in what is open again', { gate: null, folder: 'c' }, null],
    ['further down behind another', { gate: null, folder: 'd' }, 'staff'],
    ['open by itself', { gate: 'open', folder: 'a' }, null],
    ['with one of its own', { gate: 'own', folder: 'c' }, 'own'],
  ])('%s is the nearest one that is said', (_, thing, gate) => {
    expect(gateOf(thing, TREE)).toBe(gate)
  })

  it('of a bundle is its own, and those of what is in it, each once', () => {
    expect(gatesOf({ gate: null, folder: 'a', gates: ['staff', 'trade'] }, TREE)).toEqual(['trade', 'staff'])
    expect(gatesOf({ gate: null, folder: null, gates: ['staff'] }, TREE)).toEqual(['staff'])
    expect(gatesOf({ gate: null, folder: null }, TREE)).toEqual([])
  })

  it('is the same for many things of one tree as for each by itself', () => {
    const names = ['trade', 'staff', 'own', OPEN_GATE, CLOSED_GATE]
    const said = fc.option(fc.constantFrom(...names))
    fc.assert(
      fc.property(
        fc.array(fc.record({ up: fc.nat(12), gate: said }), { maxLength: 12 }),
        fc.array(fc.record({ in: fc.nat(14), gate: said, gates: fc.option(fc.subarray(names.slice(0, 3)), { nil: undefined }) })),
        (folders, things) => {
          // Each lies in an earlier one, or at the top.
          const tree = new Tree(folders.map(({ up, gate }, index) => folder(`f${index}`, up < index ? `f${up}` : null, gate)))
          const of = standingIn(tree, names)
          for (const { in: at, gate, gates } of things) {
            const thing = { gate, gates, folder: at < folders.length ? `f${at}` : null }
            expect(of(thing)).toEqual(gatesOf(thing, tree))
          }
        },
      ),
    )
  })

  it('is seen by who reads a page that stands behind it as if there were none', () => {
    const rules = new Map([
      ['trade', { rule: gateRuleSchema.parse({ kind: 'password', showsFirst: true }) }],
      ['staff', { rule: gateRuleSchema.parse({ kind: 'email', hidden: true }) }],
    ])
    expect(behindOf(['trade'], rules)).toEqual({ asks: 'password', hidden: false, showsFirst: true })
    expect(behindOf(['trade', 'staff'], rules)).toEqual({ asks: 'password', hidden: true, showsFirst: false })
    expect(behindOf(['trade', 'staff'], rules, new Set(['trade']))).toMatchObject({ asks: 'email' })
    expect(behindOf(['trade'], rules, new Set(['trade']))).toBeUndefined()
  })
})

describe('a pass', () => {
  const pass: Pass = { gate: 'trade', epoch: 2, id: 'Abc-_9', by: 'word1', until: 5000 }

  it('is read as it was written, and nothing else is', () => {
    expect(readPass(passText(pass))).toEqual(pass)
    for (const text of [
      '',
      '1.trade.2.x.y',
      '2.trade.2.x.y.5000',
      '1.TRADE.2.x.y.5000',
      '1.trade.-2.x.y.5000',
      '1.trade.2..y.5000',
      `${passText(pass)}.1`,
    ])
      expect(readPass(text), text).toBeUndefined()
  })

  it('holds for its gate, in its times, until its end, as long as what gave it is there', () => {
    const facts = { id: 'trade', epoch: 2, givers: new Set(['word1']) }
    expect(passHolds(pass, facts, 4999)).toBe(true)
    expect(passHolds(pass, facts, 5000)).toBe(false)
    expect(passHolds(pass, { ...facts, id: 'staff' }, 0)).toBe(false)
    expect(passHolds(pass, { ...facts, epoch: 3 }, 0)).toBe(false)
    expect(passHolds(pass, { ...facts, givers: new Set() }, 0)).toBe(false)
    expect(passHolds({ ...pass, by: 'walk' }, { ...facts, givers: new Set() }, 0)).toBe(true)
  })
})

describe('the times and limits of a gate', () => {
  it('count their first moment, and not their last', () => {
    const rule = { from: '2026-03-01T00:00:00Z', until: '2026-04-01T00:00:00Z' }
    const at = (iso: string) => timeOf(rule, Date.parse(iso))
    expect([at('2026-02-28T23:59:59Z'), at('2026-03-01T00:00:00Z'), at('2026-03-31T23:59:59Z'), at('2026-04-01T00:00:00Z')]).toEqual([
      'early',
      'open',
      'open',
      'late',
    ])
    expect(timeOf({ from: null, until: null }, 0)).toBe('open')
  })

  it('leave room up to each of them', () => {
    const limits = { most: 10, mostEach: 2, mostADay: 5 }
    expect(hasRoom(limits, { inAll: 9, each: 1, today: 4 })).toBe(true)
    for (const taken of [
      { inAll: 10, each: 0, today: 0 },
      { inAll: 2, each: 2, today: 0 },
      { inAll: 5, each: 0, today: 5 },
    ])
      expect(hasRoom(limits, taken)).toBe(false)
    expect(isLimited({ most: null, mostEach: null, mostADay: null })).toBe(false)
  })

  it('are told to go together', () => {
    const said = (rule: object) => gateRuleSchema.safeParse(rule).error?.issues[0]?.message
    expect(said({ kind: 'terms' })).toMatch(/Write the terms/)
    expect(said({ kind: 'password', from: '2026-03-01T00:00:00Z', until: '2026-02-01T00:00:00Z' })).toBe('It has to open before it closes.')
    expect(said({ kind: 'password', hidden: true, showsFirst: true })).toMatch(/hidden/)
    expect(said({ kind: 'password', most: 0 })).toMatch(/from 1/)
    expect(newPasswordSchema.safeParse({ password: 'short' }).success).toBe(false)
  })
})

describe('the way on after a gate', () => {
  it.each(['/files/list.pdf?save&at=abc', '/', '/trade#prices', '/to/list', '/see/%C3%A4.pdf?page=2'])('leads to %s', to => {
    expect(wayBack(to)).toBe(to)
  })

  // WHATWG URL: a browser takes tabs and line ends out, and backslashes for slashes, before it reads an address.
  it.each([
    '//elsewhere.example',
    '/\\elsewhere.example',
    '\\\\elsewhere.example',
    'https://elsewhere.example',
    'elsewhere.example',
    '/\t/elsewhere.example',
    '/\n/elsewhere.example',
    '/x\r\nSet-Cookie: a=b',
    '/x y',
    'javascript:alert(1)',
    '/desk',
    '/DESK/files',
    '/api/files',
    '/pass/abc',
    `/${'x'.repeat(3000)}`,
    '',
    null,
  ])('is the first page in the place of %j', to => {
    expect(wayBack(to)).toBe('/')
  })
})

describe('a password that is offered', () => {
  it('has three groups of letters and one of digits, none of which is taken for another', () => {
    let next = 0
    expect(easyPassword(below => next++ % below)).toMatch(/^[a-z]{4}-[a-z]{4}-[a-z]{4}-[2-9]{3}$/)
    const drawn = new Set(Array.from({ length: 500 }, () => easyPassword(below => Math.floor(Math.random() * below))))
    expect(drawn.size).toBe(500)
    expect([...drawn].join('')).not.toMatch(/[01lcqwxy]/)
  })
})

const FIELDS: GateField[] = [
  { id: 'studio01', kind: 'text', label: 'Studio', required: true, choices: [] },
  { id: 'thrown01', kind: 'choice', label: 'Thrown?', required: false, choices: ['Never', 'Often'] },
  { id: 'words001', kind: 'long', label: 'Words', required: false, choices: [] },
  { id: 'paper001', kind: 'tick', label: 'On paper', required: false, choices: [] },
]

describe('what somebody wrote at a gate', () => {
  const read = (given: Record<string, string>) => readAnswers(FIELDS, id => given[id] ?? null)

  it('is kept field by field, each of one line on one line', () => {
    expect(read({ studio01: ' Three\r\n Bridges ', thrown01: 'Often', words001: 'a\r\nb', paper001: 'on' })).toEqual({
      answers: [
        { label: 'Studio', value: 'Three Bridges' },
        { label: 'Thrown?', value: 'Often' },
        { label: 'Words', value: 'a\nb' },
        { label: 'On paper', value: 'yes' },
      ],
      wrong: [],
    })
  })

  it('is wrong where it is missing, too long, or none of the choices', () => {
    expect(read({}).wrong).toEqual(['studio01'])
    expect(read({ studio01: 'x'.repeat(301), thrown01: 'Always' }).wrong).toEqual(['studio01', 'thrown01'])
  })
})

describe('the page of a gate', () => {
  const sight = (rule: object, more: Partial<GateSight> = {}): string =>
    gatePageHtml(
      {
        gate: 'abc',
        rule: gateRuleSchema.parse({ kind: 'password', ...rule }),
        why: 'asked',
        title: 'Prices <now>',
        to: '/files/a?x&y',
        seal: 'sealed"',
        wrong: [],
        given: () => '',
        ...more,
      },
      ENGLISH,
    )

  it('asks by a plain form, and escapes whatever stands in it', () => {
    const html = sight({ words: { before: 'For <us>\n\nonly' }, ask: 'the "yard"' })
    expect(html).toContain('<h1>Prices &lt;now&gt;</h1>\n<p>For &lt;us&gt;</p>\n<p>only</p>')
    expect(html).toContain('<form class="tr-gate" action="/pass/abc" method="post">')
    expect(html).toContain('value="/files/a?x&amp;y"')
    expect(html).toContain('value="sealed&quot;"')
    expect(html).toContain('Ask the &quot;yard&quot;.')
    expect(html).not.toMatch(/<(?:us|now)>|script/)
  })

  it('ticks nothing beforehand, and says which field something is wrong with', () => {
    const html = sight(
      { kind: 'email', consent: 'You may write.', fields: FIELDS, terms: { text: 'Be kind.', file: null } },
      { fault: 'missing', wrong: ['studio01', GATE_FIELDS.consent], given: name => (name === 'field-thrown01' ? 'Often' : '') },
    )
    expect(html).not.toContain(' checked')
    expect(html).toMatch(/id="field-studio01"[^>]* aria-invalid="true" aria-describedby="tr-fault"/)
    expect(html).toMatch(/name="consent"[^>]*aria-invalid="true"/)
    expect(html).toContain('<option selected>Often</option>')
    expect(html).toContain('<p class="tr-fault" id="tr-fault" role="alert">')
    expect(html).toContain('Be kind.')
  })

  it('has no form where nobody gets through, and says why and whom to ask', () => {
    for (const [why, words] of [
      ['early', 'It opens on 1 Mar 2026.'],
      ['late', 'Too late, friend.'],
      ['usedUp', 'As many have been taken as were planned.'],
    ] as const) {
      const html = sight(
        { from: '2026-03-01T00:00:00Z', until: '2026-04-01T00:00:00Z', words: { late: 'Too late, friend.' }, ask: 'us' },
        { why },
      )
      expect(html).toContain(words)
      expect(html).toContain('Ask us.')
      expect(html).not.toContain('<form')
    }
  })
})
