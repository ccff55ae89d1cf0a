import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { z } from 'zod'
import { accountSchema, type Account } from '~~/core/account/accountForms'
import type { FileItem } from '~~/core/files/fileItem'
import {
  mayEverywhere,
  mayInPath,
  mayReadPages,
  maySite,
  maySomewhere,
  type FileRight,
  type Holder,
  type SiteRight,
} from '~~/core/rights/rights'
import { ask } from '~/composables/api'
import { useFolders } from './folders'

const signedInSchema = z.object({ account: accountSchema.nullable() })

/** What who is signed in may do: what cannot be done is not offered. The server decides. */
export const useRights = defineStore('rights', () => {
  const account = ref<Account>()
  const holder = computed<Holder>(() => account.value?.rights ?? null)

  /** Reads who is signed in, and what they may do. */
  async function load(): Promise<void> {
    account.value = (await ask(signedInSchema, '/session')).account ?? undefined
  }

  const may = (right: SiteRight) => maySite(holder.value, right)
  const mayIn = (right: FileRight, folder: string | null) =>
    mayInPath(
      holder.value,
      right,
      useFolders()
        .tree.pathTo(folder)
        .map(({ id }) => id),
    )
  const mayFile = (right: FileRight, file: Pick<FileItem, 'folder'>) => mayIn(right, file.folder)
  /** Of a folder itself: the one it lies in decides. */
  const mayFolder = (right: FileRight, id: string) => mayIn(right, useFolders().tree.get(id)?.parent ?? null)

  return {
    account,
    holder,
    load,
    may,
    mayIn,
    mayFile,
    mayFolder,
    somewhere: (right: FileRight) => maySomewhere(holder.value, right),
    everywhere: (right: FileRight) => mayEverywhere(holder.value, right),
    owner: computed(() => holder.value === null),
    readsPages: computed(() => mayReadPages(holder.value)),
    /** what is found of pages names files wherever they lie */
    checks: computed(() => mayReadPages(holder.value) && mayEverywhere(holder.value, 'see')),
    mends: computed(() => may('write') && may('publish') && mayEverywhere(holder.value, 'edit')),
  }
})
