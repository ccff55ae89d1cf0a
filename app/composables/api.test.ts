import { afterEach, expect, it, vi } from 'vitest'
import { z } from 'zod'
import { ApiProblem, ask, heldBy, tell } from './api'

afterEach(() => void vi.unstubAllGlobals())

const answering = (response: () => Response) => vi.stubGlobal('fetch', async () => response())
const schema = z.object({ items: z.array(z.object({ id: z.string() })) })

it('gives what it reads, and leaves out what it was not asked to read', async () => {
  answering(() => Response.json({ items: [{ id: 'a', further: 1 }] }))
  expect(await ask(schema, '/things')).toEqual({ items: [{ id: 'a' }] })
})

it('says that an answer was not understood, instead of going on with it', async () => {
  const said = vi.spyOn(console, 'error').mockImplementation(() => undefined)
  answering(() => Response.json({ items: [{ id: 7 }] }))
  await expect(ask(schema, '/things')).rejects.toMatchObject({ status: 0, title: 'The answer was not understood.' })
  expect(String(said.mock.calls[0])).toContain('/api/things')
  said.mockRestore()
})

it('gives a refusal in its own words (RFC 9457), and in ours where it has none', async () => {
  answering(() => Response.json({ title: 'It is full.', detail: 'Free some space.', disk: '/data' }, { status: 507 }))
  await expect(tell('/things', 'POST')).rejects.toMatchObject({
    status: 507,
    message: 'It is full. Free some space.',
    extra: { disk: '/data' },
  })
  answering(() => new Response('<h1>Bad gateway</h1>', { status: 502 }))
  await expect(tell('/things', 'POST')).rejects.toMatchObject({ status: 502, message: 'Something went wrong. Try again.' })
})

it('gives the places that hold an act back, and throws what is no such list', async () => {
  const place = {
    fileId: 'f',
    folderId: null,
    pageId: 'p',
    pageTitle: 'Trade',
    placement: 'aaaaaaaa',
    kind: 'button',
    label: 'Price list',
    section: '',
    by: null,
    draft: true,
    live: false,
  }
  const held = (uses: unknown) => () => Promise.reject(new ApiProblem(409, 'It is in use.', 'Choose.', { uses }))
  expect(await heldBy(held([place]))).toEqual([place])
  await expect(heldBy(held([{ page: 'p' }]))).rejects.toMatchObject({ status: 409 })
  expect(await heldBy(async () => undefined)).toEqual([])
})
