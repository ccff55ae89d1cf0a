import { sql } from 'drizzle-orm'
import type { Describe, Described } from '../../../core/files/selection'
import { groupBy } from '../../../core/group'
import { Problem } from '../../../core/problem'
import { among } from '../../db/among'
import type { Database, Queryable } from '../../db/connection'
import { anyGiven } from '../../db/given'
import { files } from '../../db/schema'
import { filesById } from '../files/items'
import { mustBeGate } from '../gates/gates'

/** @throws Problem 422 where it is no picture of the library */
export async function checkPicture(tx: Queryable, picture: string | null | undefined): Promise<void> {
  if (!picture) return
  const [file] = await filesById(tx, [picture])
  if (file?.family !== 'picture' || file.deleted)
    throw new Problem(422, 'That is no picture of the library.', 'Choose a picture that is not in the bin.', { field: 'picture' })
}

const idsOf = (those: { id: string }[]) => those.map(({ id }) => id)

/** What owners say of their files: descriptions, tags, pictures; of one or of many at once. */
export function createDescribing(db: Database) {
  return {
    /** @returns what was said before, to be said again where the change is undone */
    async describe({ files: fileIds, description, picture, gate, addTags = [], removeTags = [], each }: Describe): Promise<Described[]> {
      const ids = [...new Set([...fileIds, ...each.map(one => one.id)])]
      return db.transaction(async tx => {
        await checkPicture(tx, picture)
        await mustBeGate(tx, gate)
        const items = await filesById(tx, ids)
        if (items.length < ids.length) throw new Problem(404, 'Some of these files are gone.', 'Look at the list again and choose anew.')
        const same = {
          ...(description !== undefined && { description }),
          ...(picture !== undefined && { picture }),
          ...(gate !== undefined && { gate }),
        }
        if (fileIds.length && anyGiven(same)) await tx.update(files).set(same).where(among(files.id, fileIds))
        const chosen = new Set(fileIds)
        // Files of which the same is said from now on together: thousands are said something of in few steps.
        const tagged = addTags.length || removeTags.length ? items.filter(({ id }) => chosen.has(id)) : []
        for (const [, those] of groupBy(tagged, ({ tags }) => JSON.stringify(tags))) {
          const changed = [...new Set([...those[0]!.tags, ...addTags])].filter(tag => !removeTags.includes(tag))
          await tx
            .update(files)
            .set({ tags: sql`${sql.param(changed)}::text[]` })
            .where(among(files.id, idsOf(those)))
        }
        for (const [, those] of groupBy(each, ({ id: _, ...said }) => JSON.stringify(said))) {
          const { id: _, ...said } = those[0]!
          await mustBeGate(tx, said.gate)
          if (anyGiven(said))
            await tx
              .update(files)
              .set(said)
              .where(among(files.id, idsOf(those)))
        }
        return items.map(({ id, description: said, tags, picture: own, gate: behind }) => ({
          id,
          description: said,
          tags,
          picture: own,
          gate: behind,
        }))
      })
    },
  }
}
