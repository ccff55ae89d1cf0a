import { expect, it } from 'vitest'
import { newField } from './field'
import type { ImportPlan } from './import'
import { columnsOf, firstPlan } from './planning'
import { planFromSource, sourceOf } from './tableSource'

const FIELDS = [newField('title', 'Name'), newField('no', 'Number'), newField('kg', 'Weight', 'number')]
const columnsNamed = (...names: string[]) => columnsOf(names, [names.map((_, at) => `cell ${at}`)])

it('the next table comes in as the last one did, whatever order its columns are in; what is new in it goes where it would by itself', () => {
  const columns = columnsNamed('Item', 'Article', 'Notes', 'Colour')
  const plan: ImportPlan = {
    ...firstPlan(columns, [], undefined),
    mapping: [{ to: 'field', field: 'title' }, { to: 'field', field: 'no' }, { to: 'nowhere' }, { to: 'new', name: 'Shade', kind: 'text' }],
    key: 1,
    others: 'bin',
  }
  const made = [...FIELDS, newField('shade', 'Shade')]
  const source = sourceOf({ file: 'f', edition: 1 }, columns, plan, made)
  expect(source).toMatchObject({
    key: 'Article',
    others: 'bin',
    columns: [{ field: 'title' }, { field: 'no' }, { field: null }, { field: 'shade' }],
  })

  const next = columnsNamed('Colour', 'Notes', 'ARTICLE', 'Weight', 'Item')
  expect(planFromSource(firstPlan(next, [], undefined), next, source, made)).toMatchObject({
    mapping: [
      { to: 'field', field: 'shade' },
      { to: 'nowhere' },
      { to: 'field', field: 'no' },
      { to: 'new', name: 'Weight' },
      { to: 'field', field: 'title' },
    ],
    key: 2,
    others: 'bin',
    follow: true,
  })
  // A field that is gone is not written into.
  expect(planFromSource(firstPlan(next, [], undefined), next, source, FIELDS).mapping[0]).toMatchObject({ to: 'new', name: 'Colour' })
})
