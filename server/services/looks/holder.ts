import { eq } from 'drizzle-orm'
import { fillPictures, mapFillPictures } from '../../../core/look/fillPictures'
import type { Use } from '../../../core/files/fileItem'
import { looks } from '../../db/schema'
import { filledLooks } from '../uses/filled'
import type { Holder } from '../uses/holders'

/** The looks that are filled with pictures of the library: what wears them shows it at once. */
export const lookHolder: Holder = {
  async places(q, { files }) {
    if (!files.length) return {}
    return {
      uses: (await filledLooks(q)).filter(({ fileId }) => files.includes(fileId)).map(({ fileId, lookId, name }): Use => ({
        fileId, folderId: null, pageId: null, pageTitle: 'Looks', placement: `look-${lookId}`, kind: 'look', label: name, section: '', by: null, draft: true, live: true,
      })),
    }
  },

  async lead(tx, { files }, instead) {
    const going = new Set(files)
    const filled = (await tx.select({ id: looks.id, appearance: looks.appearance }).from(looks)).filter(({ appearance }) => fillPictures(appearance).some(file => going.has(file)))
    for (const { id, appearance } of filled) {
      await tx.update(looks).set({ appearance: mapFillPictures(appearance, file => going.has(file) ? instead?.id : file) }).where(eq(looks.id, id))
    }
    return async (later) => {
      for (const { id, appearance } of filled) await later.update(looks).set({ appearance }).where(eq(looks.id, id))
    }
  },
}
