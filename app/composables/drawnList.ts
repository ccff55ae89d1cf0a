import { computed, toValue, type ComputedRef, type MaybeRefOrGetter } from 'vue'
import type { Node } from '@tiptap/pm/model'
import type { Filling } from '~~/core/catalogue/bind'
import { entrySlug, type CatalogueItem } from '~~/core/catalogue/catalogue'
import type { EntryItem } from '~~/core/catalogue/entry'
import { fillList } from '~~/core/catalogue/fillList'
import { listEntries, readListQuestion } from '~~/core/catalogue/list'
import { titleOf } from '~~/core/catalogue/values'
import { pageRenderer } from '~~/core/page/html'
import { targetFacts } from '~~/core/page/placeholders'
import type { EntryListBlock } from '~~/core/page/schema'
import { KEEPS_LITTLE } from '~~/core/privacy/kept'
import { flat } from '~~/core/shelf/listing'

interface Sample {
  catalogue: ComputedRef<CatalogueItem | undefined>
  entries: ComputedRef<EntryItem[]>
  filling: ComputedRef<Filling | undefined>
}

/** A list of the open page as visitors get it, with the first entries as they are written; nothing for cards: they are laid out. */
export function useDrawnList(node: MaybeRefOrGetter<Node>, { catalogue, entries, filling }: Sample) {
  const library = useLibrary()
  const looks = useLooks()
  const behind = useBehind()
  return computed(() => {
    const { attrs, content } = toValue(node).toJSON() as EntryListBlock
    if (attrs.way === 'cards' || !catalogue.value || !filling.value) return ''
    const { fields, slug } = catalogue.value
    const { speech, paged, fileTitle } = filling.value
    const question = readListQuestion(new URLSearchParams(), attrs, fields)
    const live = entries.value.map(entry => ({ ...entry, published: '' }))
    const shown = fillList({ attrs, content }, listEntries(attrs, live, fields, question, speech), {
      catalogue: catalogue.value,
      paged,
      fileTitle,
      path: '',
      speech,
    })
    const byId = new Map(entries.value.map(entry => [entry.id, entry]))
    return pageRenderer({
      speech,
      file: id => {
        const file = library.known.get(id)
        return file && targetFacts(file, false, behind(file))
      },
      page: () => undefined,
      signpost: () => undefined,
      entry: id => {
        const entry = byId.get(id)
        return entry && { slug: entrySlug(slug, entry.slug), title: titleOf(entry.values) }
      },
      shelf: () => flat([]),
      look: id => looks.byId.get(id)?.appearance,
      shelfLook: () => undefined,
      icon: () => undefined,
      kept: KEEPS_LITTLE,
      now: Date.now(),
    }).blocks([{ type: 'entryList', attrs, content, shown }])
  })
}
