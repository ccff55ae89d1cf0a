import { afterEach, expect, it } from 'vitest'
import { useSelection } from '~/stores/selection'
import { clearDesk, fieldNamed, json, mountPart, press, settled, standInServer, write } from '~/testing/desk'
import { fileItem } from '~~/core/testing/items'
import DescribeDialog from './DescribeDialog.vue'

afterEach(clearDesk)

const file = (id: string) => fileItem({ id, description: 'As it was' })

it('keeps what was written before it knew the files, and sends only what was said', async () => {
  let known: () => void = () => undefined
  const asked = standInServer(({ path }) =>
    path === '/api/files/some'
      ? new Promise(resolve => (known = () => resolve(json({ items: [file('a'), file('b')] }))))
      : path === '/api/selection/describe'
        ? json({ before: [] })
        : json({ items: [], binned: [] }),
  )
  useSelection().choose({ files: ['a', 'b'], folders: [] })
  await mountPart(DescribeDialog)
  const field = fieldNamed('Add tags')
  field.value = 'beginners'
  field.dispatchEvent(new Event('input', { bubbles: true }))
  field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }))
  await settled()
  known()
  await settled()
  expect(fieldNamed('Description, for all of them').value).toBe('As it was')
  await press('Save')
  const sent = () => asked.find(({ path }) => path === '/api/selection/describe')?.body
  expect(sent()).toEqual({ files: ['a', 'b'], addTags: ['beginners'], removeTags: [] })
  expect(sent()).not.toHaveProperty('description')
})

it('sends a description that was written, of one file too', async () => {
  const asked = standInServer(({ path }) =>
    path === '/api/files/some'
      ? json({ items: [file('c')] })
      : path === '/api/selection/describe'
        ? json({ before: [] })
        : json({ items: [], binned: [] }),
  )
  useSelection().choose({ files: ['c'], folders: [] })
  await mountPart(DescribeDialog)
  await write('Description', 'For the first evening')
  await press('Save')
  expect(asked.find(({ path }) => path === '/api/selection/describe')?.body).toMatchObject({ description: 'For the first evening' })
})
