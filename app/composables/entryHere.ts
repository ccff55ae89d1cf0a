import type { Editor } from '@tiptap/core'
import type { Node } from '@tiptap/pm/model'
import { computed, onBeforeUnmount, ref, toValue, watch, type MaybeRefOrGetter } from 'vue'
import type { Filling } from '~~/core/catalogue/bind'
import { isFileKind } from '~~/core/catalogue/field'
import { sayValue } from '~~/core/catalogue/values'

/** The catalogue whose entries are laid out at a place of the open page: of the list it lies in, or of the page itself. */
export function catalogueAround(doc: Node, position: number): string | null {
  const $position = doc.resolve(Math.min(position, doc.content.size))
  for (let depth = $position.depth; depth > 0; depth--) {
    const node = $position.node(depth)
    if (node.type.name === 'entryList') return node.attrs.catalogue as string | null
  }
  return usePage().current?.catalogue ?? null
}

/** A catalogue, and the entry of it that is shown in the place of all. */
export function useSample(of: MaybeRefOrGetter<string | null | undefined>) {
  const catalogues = useCatalogues()
  const samples = useSamples()
  const library = useLibrary()
  const catalogue = computed(() => catalogues.byId.get(toValue(of) ?? ''))
  watch(
    () => [catalogue.value?.id, catalogues.changes] as const,
    ([id]) => void (id && samples.meet(id)),
    { immediate: true },
  )
  const entries = computed(() => samples.byCatalogue.get(catalogue.value?.id ?? '') ?? [])
  const shown = computed(() => samples.fullest.get(catalogue.value?.id ?? ''))
  const filling = computed<Filling | undefined>(() => {
    if (!catalogue.value || !shown.value) return undefined
    return {
      fields: catalogue.value.fields,
      entry: { ...shown.value, published: '' },
      paged: catalogue.value.layout !== null,
      fileTitle: id => {
        const file = library.known.get(id)
        return file && !file.deleted && !file.withdrawn ? file.title : undefined
      },
      speech: useSpeech().speech,
    }
  })
  return { catalogue, entries, filling }
}

/** A field, and what the entry that is shown has there, in words; empty where it has nothing. */
export function useFieldSaid({ catalogue, filling }: ReturnType<typeof useSample>, id: () => string) {
  const field = computed(() => catalogue.value?.fields.find(each => each.id === id()))
  const value = computed(() => {
    if (!field.value || !filling.value) return ''
    const held = filling.value.entry.values[field.value.id]
    if (!isFileKind(field.value.kind)) return sayValue(field.value, held, filling.value.speech)
    return [held ?? []]
      .flat()
      .map(file => filling.value!.fileTitle(String(file)) ?? '')
      .join(', ')
  })
  return { field, value }
}

/** The same for a block or a word on the sheet, wherever it is moved. */
export function useEntryHere({ editor, getPos }: { editor: Editor; getPos: () => number | undefined }) {
  const of = ref<string | null>(null)
  const find = () => {
    const position = getPos()
    if (position !== undefined) of.value = catalogueAround(editor.state.doc, position)
  }
  find()
  editor.on('update', find)
  onBeforeUnmount(() => editor.off('update', find))
  return useSample(of)
}
