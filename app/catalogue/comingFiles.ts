import type { Ref } from 'vue'
import { fieldOf, type CatalogueItem } from '~~/core/catalogue/catalogue'
import type { EntryItem } from '~~/core/catalogue/entry'
import { isFileKind, type Field } from '~~/core/catalogue/field'
import type { Matched, Stray } from '~~/core/catalogue/match'
import type { Carried } from '~/composables/carried'
import type { LocalFile } from '~/composables/localFiles'

/** Files for a field: each finds its entry, which is shown before it is done. */
export function useComingFiles(catalogue: Ref<CatalogueItem | undefined>) {
  const entries = useEntries()
  const library = useLibrary()
  const uploads = useUploads()

  const matching = shallowRef<{ field: Field; matched: Matched[] }>()

  async function sortStrays({ field, files }: Stray) {
    const of = fieldOf(catalogue.value!.fields, field)
    if (!of) return
    await library.meet(files.map(({ file }) => file))
    matching.value = { field: of, matched: files }
  }

  async function match(field: Field, ids: string[]) {
    await library.meet(ids)
    matching.value = { field, matched: await entries.match(field.id, ids) }
  }

  /** Files for a field: the one that was dropped on an entry is its own, others find theirs by their names. */
  async function take(field: Field, carried: Carried, on?: EntryItem) {
    await orSayWhy(async () => {
      const ours = carried.things?.files ?? []
      const local = (await carried.files) ?? []
      const put = (ids: string[]) =>
        on && ids.length === 1
          ? entries.change([{ id: on.id, values: { [field.id]: isFileKind(field.kind) && field.kind.endsWith('s') ? ids : ids[0]! } }])
          : match(field, ids)
      if (ours.length) return put(ours)
      if (local.length) return bring(local, put)
    })
  }

  /** Sends files into the library; when all are in, something is done with them. */
  async function bring(local: LocalFile[], then: (ids: string[]) => unknown) {
    const come: string[] = []
    const { files, ways } = await uploads.sift(local, null)
    uploads.add(files, {
      ways,
      meant: true,
      done: item => {
        come.push(item.id)
        if (come.length === files.length) return orSayWhy(async () => then(come))
      },
    })
  }

  return { matching, sortStrays, take }
}
