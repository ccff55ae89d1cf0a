import { describe, expect, it } from 'vitest'
import { READY_SETS, readyRights, readySetOf } from './ready'
import {
  FILE_RIGHTS,
  SITE_RIGHTS,
  mayEverywhere,
  mayInPath,
  mayReadPages,
  maySite,
  maySomewhere,
  rightsSchema,
  type Rights,
} from './rights'

const nothing: Rights = { files: [], site: [] }

describe('rights', () => {
  const yard: Rights = { files: [{ folder: 'yard', may: ['see', 'put'] }], site: ['write'] }

  it.each([
    ['put', ['yard'], true],
    ['put', ['papers', 'yard', 'notes'], true],
    ['put', ['papers'], false],
    ['put', [], false],
    ['edit', ['yard'], false],
    ['see', ['yard'], true],
  ] as const)('%s at %j: %s', (right, path, may) => expect(mayInPath(yard, right, path)).toBe(may))

  it('are added up where several hold', () => {
    const more: Rights = { files: [...yard.files, { folder: null, may: ['see'] }, { folder: 'notes', may: ['see', 'edit'] }], site: [] }
    expect(FILE_RIGHTS.filter(right => mayInPath(more, right, ['yard', 'notes']))).toEqual(['see', 'put', 'edit'])
    expect([mayEverywhere(more, 'see'), mayEverywhere(more, 'put'), maySomewhere(more, 'put'), maySomewhere(more, 'delete')]).toEqual([
      true,
      false,
      true,
      false,
    ])
  })

  it('of an owner are all there are, whatever comes to be; of nobody none', () => {
    for (const right of FILE_RIGHTS) expect([mayInPath(null, right, []), mayInPath(nothing, right, ['yard'])]).toEqual([true, false])
    for (const right of SITE_RIGHTS) expect([maySite(null, right), maySite(nothing, right)]).toEqual([true, false])
    expect([mayReadPages(null), mayReadPages(yard), mayReadPages({ files: [], site: ['publish'] }), mayReadPages(nothing)]).toEqual([
      true,
      true,
      true,
      false,
    ])
  })

  it('are written one way: seeing goes with all else, what holds nowhere is left out, and none is named twice', () => {
    const given = {
      files: [
        { folder: 'a', may: ['delete', 'put', 'put'] },
        { folder: 'b', may: [] },
      ],
      site: ['gates', 'write', 'write'],
    }
    expect(rightsSchema.parse(given)).toEqual({ files: [{ folder: 'a', may: ['see', 'put', 'delete'] }], site: ['write', 'gates'] })
    for (const wrong of [{ files: [{ folder: 'a', may: ['everything'] }], site: [] }, { files: [], site: ['people'] }, { site: [] }, null])
      expect(rightsSchema.safeParse(wrong).success).toBe(false)
  })
})

describe('ready sets', () => {
  it.each(READY_SETS.map(({ key }) => key))('%s is known again, in the whole library and in folders', key => {
    for (const folders of [null, ['a'], ['a', 'b']]) {
      const rights = readyRights(key, folders)
      expect(readySetOf(rights)?.key).toBe(key)
      expect(rightsSchema.parse(rights)).toEqual(rights)
    }
  })
  it('what differs by one right is none of them', () => {
    const rights = readyRights('puts', null)
    expect(readySetOf({ ...rights, site: ['gates'] })).toBeUndefined()
    expect(readySetOf({ ...rights, files: [{ folder: null, may: ['see', 'put'] }] })).toBeUndefined()
    expect(readySetOf({ files: [], site: [] })).toBeUndefined()
  })
})
