import { describe, expect, it } from 'vitest'
import { createEvents } from '../events'
import { packed } from './packed'
import { rememberPages, type Rendered } from './remembered'

const rendered = (words: string): Rendered => ({
  as: packed(words),
  files: new Set(),
  bytes: new Set(),
  lists: false,
  asksWords: false,
  counts: false,
  timely: false,
  entries: new Set(),
  entriesOf: new Set(),
  catalogues: new Set(),
})

/** Pages that are rendered when they are told to be. */
function makePages() {
  const events = createEvents()
  const remembered = rememberPages(events)
  const begun: { resolve: (page: Rendered | undefined) => void; reject: (error: Error) => void }[] = []
  const render = () => new Promise<Rendered | undefined>((resolve, reject) => begun.push({ resolve, reject }))
  const ask = (slug: string, params?: URLSearchParams) => remembered.page(slug, params, render)
  return { events, begun, ask }
}

describe('a page that is asked for by many at once', () => {
  it('is rendered once for all of them, and remembered', async () => {
    const { begun, ask } = makePages()
    const asked = Array.from({ length: 50 }, () => ask('kilns'))
    expect(begun).toHaveLength(1)
    const page = rendered('Kilns')
    begun[0]!.resolve(page)
    expect(await Promise.all(asked)).toEqual(Array(50).fill(page))
    expect(await ask('kilns')).toBe(page)
    expect(begun).toHaveLength(1)
  })

  it('is rendered for each thing that is asked of its lists', () => {
    const { begun, ask } = makePages()
    void ask('kilns')
    void ask('kilns', new URLSearchParams('list=a&q=one'))
    void ask('kilns', new URLSearchParams('list=a&q=two'))
    expect(begun).toHaveLength(3)
  })

  it('is rendered anew for those who ask after a change, and what was begun before it is not remembered', async () => {
    const { events, begun, ask } = makePages()
    const early = ask('kilns')
    events.emit('live')
    const late = ask('kilns')
    expect(begun).toHaveLength(2)
    const [before, after] = [rendered('Before'), rendered('After')]
    begun[1]!.resolve(after)
    expect(await late).toBe(after)
    begun[0]!.resolve(before)
    expect(await early).toBe(before)
    expect(await ask('kilns')).toBe(after)
  })

  it('is tried again where it could not be rendered', async () => {
    const { begun, ask } = makePages()
    const asked = [ask('kilns'), ask('kilns')]
    begun[0]!.reject(new Error('no room'))
    expect((await Promise.allSettled(asked)).map(({ status }) => status)).toEqual(['rejected', 'rejected'])
    void ask('kilns')
    expect(begun).toHaveLength(2)
  })
})
