import { z } from 'zod'
import { ref } from 'vue'
import { pageTextSchema, type PageText } from '~~/core/page/changes'
import { pageVersionSchema, type PageVersion } from '~~/core/page/pageItem'
import { ask } from './api'

const listSchema = z.object({ items: z.array(pageVersionSchema) })

/** The versions of a page that were live. */
export function usePageVersions() {
  const versions = ref<PageVersion[]>()
  return {
    versions,
    async load(pageId: string) {
      versions.value = (await ask(listSchema, `/pages/${pageId}/versions`)).items
    },
  }
}

/** One version as it was read. */
export const readVersion = (pageId: string, number: number): Promise<PageText> => ask(pageTextSchema, `/pages/${pageId}/versions/${number}`)
