import { describe, expect, it } from 'vitest'
import { button, heading, linkMark, pageOf, shelf, words } from '../testing/pages'
import { ledBack } from './ledBack'
import { mapTargets } from './targets'
import type { PageDocument, Target } from './schema'

const fileOf = (id: string): Target => ({ kind: 'file', id })
const [old, next, other] = [fileOf('old'), fileOf('next'), fileOf('other')]
const replace = (document: PageDocument) => mapTargets(document, target => (target?.kind === 'file' && target.id === 'old' ? next : target))

const before = pageOf(
  heading('Prices'),
  button({ target: old }),
  words('the list', linkMark('bbbbbbbbbb', 'old')),
  shelf({ placement: 'cccccccccc', source: { kind: 'files', ids: ['old', 'next'] } }),
)
const after = replace(before)

describe('a replacement is taken back on a page that was written on since', () => {
  it('as it was, where nothing else changed', () => expect(ledBack(after, before, after)).toEqual(before))

  it('with what was written', () => {
    const [title, ...rest] = after.content
    const now = { ...after, content: [title!, words('Valid from May.'), ...rest] }
    expect(ledBack(now, before, after)).toEqual({
      ...before,
      content: [before.content[0], words('Valid from May.'), ...before.content.slice(1)],
    })
  })

  it('but not what was led elsewhere since, nor what is gone', () => {
    const now = pageOf(button({ target: other }), button({ placement: 'dddddddddd', target: next }))
    expect(ledBack(now, before, after)).toEqual(now)
  })

  it('nor where something was taken off', () => {
    const taken = mapTargets(before, target => (target?.kind === 'file' && target.id === 'old' ? 'remove' : target))
    expect(ledBack(taken, before, taken)).toBeUndefined()
  })
})
