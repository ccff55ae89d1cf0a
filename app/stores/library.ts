import { defineStore } from 'pinia'
import { reactive, ref } from 'vue'
import type { DeleteFile, FileChange, FileItem, FileQuery, FileUse } from '~~/core/files/item'
import { api } from '~/composables/api'
import { useNotices } from './notices'

export interface FileDetails extends FileItem {
  usedIn: FileUse[]
  twins: { id: string, title: string, handle: string }[]
}

const AT_ONCE = 200

/** The files of the library as the desk knows them. */
export const useLibrary = defineStore('library', () => {
  const items = ref<FileItem[]>([])
  const total = ref(0)
  const loaded = ref(false)
  const query = reactive<Pick<FileQuery, 'sort' | 'bin'> & { q: string }>({ q: '', sort: 'newest', bin: false })
  /** every file met so far, by identity */
  const known = reactive(new Map<string, FileItem>())

  function learn(files: FileItem[]) {
    for (const file of files) known.set(file.id, file)
  }

  async function search(q: string, limit: number): Promise<FileItem[]> {
    const { items: found } = await api<{ items: FileItem[] }>(`/files?${new URLSearchParams({ q, limit: String(limit) })}`)
    learn(found)
    return found
  }

  let asked = 0
  async function load(more = false) {
    const mine = ++asked
    const from = more ? items.value.length : 0
    const limit = more ? AT_ONCE : Math.max(AT_ONCE, Math.min(500, items.value.length))
    const parameters = new URLSearchParams({ sort: query.sort, bin: String(query.bin), from: String(from), limit: String(limit), ...query.q && { q: query.q } })
    const answer = await api<{ items: FileItem[], total: number }>(`/files?${parameters}`)
    // A slow answer must not overwrite a later one.
    if (mine !== asked) return
    items.value = more ? [...items.value, ...answer.items] : answer.items
    total.value = answer.total
    loaded.value = true
    learn(answer.items)
    if (answer.items.some(file => file.preview === 'waiting')) setTimeout(() => mine === asked && load(), 1200)
  }

  async function details(id: string): Promise<FileDetails> {
    const file = await api<FileDetails>(`/files/${id}`)
    learn([file])
    return file
  }

  async function change(id: string, changed: FileChange) {
    learn([await api<FileItem>(`/files/${id}`, 'PATCH', changed)])
    await load()
  }

  async function restore(id: string) {
    learn([await api<FileItem>(`/files/${id}/restore`, 'POST')])
    await load()
  }

  /** Puts a file in the bin; throws where it is in use and no way on is chosen. */
  async function remove(file: Pick<FileItem, 'id' | 'title'>, way: DeleteFile = {}) {
    learn([await api<FileItem>(`/files/${file.id}`, 'DELETE', way)])
    await load()
    useNotices().say(`"${file.title}" is in the bin for 30 days.`, { action: { label: 'Undo', run: () => restore(file.id) } })
  }

  return { items, total, loaded, query, known, learn, load, search, details, change, remove, restore }
})
