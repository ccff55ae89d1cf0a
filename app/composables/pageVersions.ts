import { ref } from 'vue'
import type { PageText } from '~~/core/page/changes'
import type { PageVersion } from '~~/core/page/pageItem'
import { api } from './api'

/** The versions of a page that were live. */
export function usePageVersions() {
  const versions = ref<PageVersion[]>()
  return {
    versions,
    async load(pageId: string) {
      versions.value = (await api<{ items: PageVersion[] }>(`/pages/${pageId}/versions`)).items
    },
  }
}

/** One version as it was read. */
export const readVersion = (pageId: string, number: number): Promise<PageText> => api<PageText>(`/pages/${pageId}/versions/${number}`)
