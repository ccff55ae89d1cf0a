import { eq } from 'drizzle-orm'
import { canonical } from '../../../core/canonical'
import { fillPictures, mapFillPictures } from '../../../core/look/fillPictures'
import type { Use } from '../../../core/files/fileItem'
import { Problem } from '../../../core/problem'
import { looks } from '../../db/schema'
import { filledLooks } from '../uses/filled'
import type { Holder } from '../uses/holders'

/** The looks that are filled with pictures of the library: what wears them shows it at once. */
export const lookHolder: Holder = {
  async places(q, { files }) {
    if (!files.length) return {}
    return {
      uses: (await filledLooks(q))
        .filter(({ fileId }) => files.includes(fileId))
        .map(({ fileId, lookId, name }): Use => ({
          fileId,
          folderId: null,
          pageId: null,
          pageTitle: 'Looks',
          placement: `look-${lookId}`,
          kind: 'look',
          label: name,
          section: '',
          by: null,
          draft: true,
          live: true,
        })),
    }
  },

  async lead(tx, { files }, instead) {
    const going = new Set(files)
    const filled = (await tx.select({ id: looks.id, appearance: looks.appearance }).from(looks)).filter(({ appearance }) =>
      fillPictures(appearance).some(file => going.has(file)),
    )
    const led = filled.map(look => ({ ...look, after: mapFillPictures(look.appearance, file => (going.has(file) ? instead?.id : file)) }))
    for (const { id, after } of led) await tx.update(looks).set({ appearance: after }).where(eq(looks.id, id))
    return async later => {
      for (const { id, appearance, after } of led) {
        const [now] = await later.select({ name: looks.name, appearance: looks.appearance }).from(looks).where(eq(looks.id, id))
        if (!now) continue
        if (canonical(now.appearance) !== canonical(after))
          throw new Problem(409, `The look “${now.name}” has been changed since.`, 'Open the look to change it there.')
        await later.update(looks).set({ appearance }).where(eq(looks.id, id))
      }
    }
  },
}
