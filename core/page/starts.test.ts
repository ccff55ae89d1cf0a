import { expect, it } from 'vitest'
import { brokenPlacements } from '../walk/broken'
import { pageDocumentSchema } from './schema'
import { START_NAMES, STARTS } from './starts'
import { placementsOf } from './targets'

it.each(START_NAMES)(
  'the page start "%s" fits the schema, has places of its own each time, and goes live with none of them forgotten',
  name => {
    const [first, second] = [STARTS[name].make(), STARTS[name].make()]
    expect(pageDocumentSchema.parse(first)).toEqual(first)
    const ids = [first, second].flatMap(document => placementsOf(document).map(({ id }) => id))
    expect(new Set(ids).size).toBe(ids.length)
    expect(brokenPlacements(first, () => true)).toHaveLength(placementsOf(first).length)
  },
)
