import { fileDetailsSchema, type FileDetails } from '~~/core/files/fileDetails'
import { z } from 'zod'
import { defineStore } from 'pinia'
import { reactive, ref } from 'vue'
import { fileItemSchema, foundFileSchema, type FileChange, type FileItem, type FoundFile } from '~~/core/files/fileItem'
import { ask } from '~/composables/api'
import { useFolders } from './folders'

const someSchema = z.object({ items: z.array(fileItemSchema) })
const foundSchema = z.object({ items: z.array(foundFileSchema), total: z.number() })

/** What the desk knows of single files, and that the library has changed. */
export const useLibrary = defineStore('library', () => {
  /** files that are used, waiting in the trough or looked at, by identity */
  const known = reactive(new Map<string, FileItem>())
  /** counts the changes: lists that show the library ask anew */
  const changes = ref(0)

  function learn(files: FileItem[]) {
    for (const file of files) known.set(file.id, file)
  }

  /** Learns files the desk has only heard of. */
  async function meet(ids: string[]): Promise<FileItem[]> {
    const strange = ids.filter(id => !known.has(id))
    if (strange.length) learn((await ask(someSchema, '/files/some', 'POST', { files: strange })).items)
    return ids.flatMap(id => known.get(id) ?? [])
  }

  /** Lists ask anew, and so does what is known of single files. */
  /** what else is read anew with the library */
  const followers: (() => Promise<unknown>)[] = []
  /** Has something read anew whenever the library is. */
  const refreshWith = (load: () => Promise<unknown>) => void followers.push(load)

  async function refresh() {
    changes.value++
    const ids = [...known.keys()]
    await Promise.all([
      useFolders().load(),
      ...followers.map(load => load()),
      ids.length ? ask(someSchema, '/files/some', 'POST', { files: ids }).then(({ items }) => learn(items)) : undefined,
    ])
  }

  async function search(q: string, limit: number, types: readonly string[] = []): Promise<{ items: FoundFile[]; total: number }> {
    const query = new URLSearchParams([['q', q], ['limit', String(limit)], ...types.map(type => ['type', type])])
    const answer = await ask(foundSchema, `/files?${query}`)
    learn(answer.items)
    return answer
  }

  async function details(id: string): Promise<FileDetails> {
    const file = await ask(fileDetailsSchema, `/files/${id}`)
    learn([file])
    return file
  }

  async function change(id: string, changed: FileChange) {
    learn([await ask(fileItemSchema, `/files/${id}`, 'PATCH', changed)])
    await refresh()
  }

  async function showEdition(id: string, number: number) {
    learn([await ask(fileItemSchema, `/files/${id}/edition`, 'PUT', { number })])
    await refresh()
  }

  return { known, changes, learn, meet, refresh, refreshWith, search, details, change, showEdition }
})
