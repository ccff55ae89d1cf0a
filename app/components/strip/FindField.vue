<script setup lang="ts">
import type { LedEntry } from '~~/core/catalogue/entry'
import { fold } from '~~/core/find/fold'
import type { FoundFile } from '~~/core/files/fileItem'
import { formatSize } from '~~/core/files/size'
import { settingPlaces } from '~/library/settingPlaces'
import { mayOpen } from '~/rights/boards'

/** Reaches files by name or the words inside them, and folders, pages, catalogues with their entries, and settings by name. */
interface Hit {
  key: string
  group: string
  words: string
  side: string
  file?: FoundFile
  go: () => unknown
}

const rights = useRights()
const pages = usePages()
const folders = useFolders()
const signposts = useSignposts()
const listing = useListing()
const catalogues = useCatalogues()
const samples = useSamples()
const boards = useBoards()
const placer = usePlacer()
const field = ref<HTMLInputElement>()
const text = ref('')
const files = ref<FoundFile[]>([])
const entries = ref<LedEntry[]>([])
const total = ref(0)
/** what the files that are shown were found by */
const found = ref('')
const active = ref(0)
const open = ref(false)
const list = useId()

const { search, settled } = useFileSearch(8)
const { press, held } = usePressing()
watch([text, open], async () => {
  active.value = 0
  if (!open.value) return
  const q = text.value.trim()
  void findEntries(q)
  const answer = await search(q)
  const pressed = held()
  if (pressed) await pressed
  if (!answer || text.value.trim() !== q) return
  files.value = answer.items
  total.value = answer.total
  found.value = q
})

function failed(error: unknown): LedEntry[] {
  useNotices().refused(error)
  return []
}
/** Entries come when they do: files are not waited for with them. */
async function findEntries(q: string) {
  const led = q && rights.readsPages ? await samples.find(q).catch(failed) : []
  if (text.value.trim() === q) entries.value = led
}

function showAll() {
  const q = text.value.trim()
  listing.open(null)
  listing.filters.q = q
  boards.toLibrary()
}

function openFolder(id: string) {
  listing.open(id)
  boards.toLibrary()
}

const hits = computed<Hit[]>(() => {
  const q = fold(text.value.trim())
  const matches = (words: string) => fold(words).includes(q)
  return [
    ...pages.items
      .filter(page => matches(page.title) || matches(page.slug))
      .slice(0, 5)
      .map(page => ({
        key: page.id,
        group: 'Pages',
        words: page.title,
        side: `/${page.slug}`,
        go: () => navigateTo(`/desk/pages/${page.id}`),
      })),
    ...files.value.map(file => ({
      key: file.id,
      group: 'Files',
      words: file.title,
      side: `${file.tag}, ${formatSize(file.size)}`,
      file,
      go: () => navigateTo(`/desk/files/${file.id}`),
    })),
    ...(found.value && total.value
      ? [
          {
            key: 'all',
            group: 'Files',
            words: `${counted(total.value, 'file')} in the library with “${found.value}”`,
            side: 'show',
            go: showAll,
          },
        ]
      : []),
    ...(q
      ? folders.tree.all
          .filter(folder => matches(folder.name))
          .slice(0, 5)
          .map(folder => ({
            key: folder.id,
            group: 'Folders',
            words: folder.name,
            side: counted(folders.filesBelow.get(folder.id) ?? 0, 'file'),
            go: () => openFolder(folder.id),
          }))
      : []),
    ...(q
      ? catalogues.items
          .filter(({ name }) => matches(name))
          .slice(0, 5)
          .map(({ id, name, entries: count, ofSite }) => ({
            key: id,
            group: 'Catalogues',
            words: name,
            side: ofSite ? '' : counted(count, 'entry', 'entries'),
            go: () => navigateTo(`/desk/catalogues/${id}`),
          }))
      : []),
    ...entries.value.map(({ id, title, catalogue }) => ({
      key: id,
      group: 'Catalogues',
      words: title,
      side: catalogues.byId.get(catalogue)?.one ?? '',
      go: () => navigateTo(`/desk/catalogues/${catalogue}?entry=${id}`),
    })),
    ...(q && rights.may('design')
      ? signposts.items
          .filter(item => matches(item.title) || matches(item.name))
          .slice(0, 5)
          .map(item => ({
            key: item.id,
            group: 'Signposts',
            words: item.title,
            side: `/to/${item.name}`,
            go: () => navigateTo(signpostPlace(item.id)),
          }))
      : []),
    ...pages.edges
      .filter(page => q && matches(`${page.title}, menu`))
      .map(page => ({
        key: page.id,
        group: 'Settings',
        words: `${page.title}, menu`,
        side: '',
        go: () => navigateTo(`/desk/pages/${page.id}`),
      })),
    ...settingPlaces(q)
      .filter(({ to }) => mayOpen(rights, to))
      .map(item => ({
        key: item.words,
        group: 'Settings',
        words: item.words,
        side: '',
        go: () => navigateTo(item.to),
      })),
  ]
})

function close() {
  open.value = false
  text.value = ''
  field.value?.blur()
}

async function take(hit: Hit | undefined, place = false) {
  if (!hit) return
  const { file, go } = hit
  if (place && file && placer.current) placer.current.place(file)
  else await go()
  close()
}

function onKey(event: KeyboardEvent) {
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (step) active.value = (active.value + step + hits.value.length) % Math.max(1, hits.value.length)
  // Fast typists press Enter before the answer is there.
  else if (event.key === 'Enter' && (event.ctrlKey || event.metaKey) && text.value.trim()) {
    showAll()
    close()
  } else if (event.key === 'Enter') void settled().then(() => take(hits.value[active.value], event.shiftKey))
  else if (event.key === 'Escape') close()
  else return
  event.preventDefault()
}

function onGlobalKey(event: KeyboardEvent) {
  if (!(event.ctrlKey || event.metaKey) || event.shiftKey || event.key.toLowerCase() !== 'k') return
  event.preventDefault()
  field.value?.focus()
  field.value?.select()
}
onMounted(() => window.addEventListener('keydown', onGlobalKey))
onBeforeUnmount(() => window.removeEventListener('keydown', onGlobalKey))
</script>

<template>
  <div class="find">
    <VTextField
      ref="field"
      v-model="text"
      v-field-role="'combobox'"
      type="search"
      aria-label="Find files, pages and settings"
      placeholder="Find by name, or by words inside"
      autocomplete="off"
      spellcheck="false"
      :aria-expanded="open"
      :aria-controls="list"
      aria-autocomplete="list"
      :aria-activedescendant="open && hits.length ? `${list}-${active}` : undefined"
      data-own-keys
      @focus="open = true"
      @blur="open = false"
      @keydown="onKey"
    />
    <kbd aria-hidden="true">Ctrl K</kbd>
    <div v-show="open" class="results">
      <ul :id="list" role="listbox" aria-label="Found" @pointerdown="press">
        <li
          v-for="(hit, index) in hits"
          :id="`${list}-${index}`"
          :key="hit.key"
          role="option"
          :aria-selected="index === active"
          :class="{ first: index > 0 && hits[index - 1]!.group !== hit.group }"
          @mousemove="active = index"
          @mousedown.prevent
          @click="take(hit, $event.shiftKey)"
        >
          <span class="group">{{ index === 0 || hits[index - 1]!.group !== hit.group ? hit.group : '' }}</span>
          <span class="words"
            ><span class="name">{{ hit.words }}</span
            ><PassageLine v-if="hit.file?.match?.by === 'inside'" :part="hit.file.match.part" :passage="hit.file.match.passage"
          /></span>
          <span class="side">{{ hit.file?.match?.by === 'slip' ? 'nearly' : hit.side }}</span>
        </li>
      </ul>
      <p v-if="!hits.length" class="none">Nothing has that in its name or inside.</p>
      <p v-else-if="placer.current" class="tip">Enter opens. Shift and Enter place a file on this page.</p>
    </div>
  </div>
</template>

<style scoped>
.find {
  position: relative;
  flex: 1;
  max-width: 460px;
}
.v-input :deep(.v-field__input) {
  padding-right: 60px;
}
kbd {
  position: absolute;
  right: 8px;
  top: 6px;
  pointer-events: none;
}
.results {
  position: absolute;
  z-index: 100;
  top: 34px;
  left: 0;
  right: 0;
  min-width: 340px;
  background: #fff;
  border: 1px solid var(--ink);
  border-radius: 4px;
  padding: 4px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 480px;
  overflow: auto;
}
li {
  display: grid;
  grid-template-columns: 58px minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
  min-height: 30px;
  padding: 0 6px;
  border-radius: 3px;
  cursor: pointer;
}
li.first {
  border-top: 1px solid var(--line);
  border-radius: 0 0 3px 3px;
}
li[aria-selected='true'] {
  background: #ddebe9;
  box-shadow: inset 3px 0 var(--water);
}
.group {
  color: var(--soft);
  font-size: 12px;
}
.words {
  display: grid;
  min-width: 0;
  padding: 2px 0;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.side {
  font:
    12px 'IBM Plex Mono',
    monospace;
  color: var(--soft);
}
.none,
.tip {
  padding: 6px 8px 3px;
  color: var(--soft);
  font-size: 12.5px;
}
@media (max-width: 799px) {
  kbd {
    display: none;
  }
  .v-input :deep(.v-field__input) {
    padding-right: 9px;
  }
  .results {
    position: fixed;
    left: 6px;
    right: 6px;
    top: 44px;
    min-width: 0;
  }
}
</style>
