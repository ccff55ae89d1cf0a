<script setup lang="ts">
import type { FileItem } from '~~/core/files/item'
import { formatSize } from '~~/core/files/size'

/** Reaches files, pages and settings by part of their name. */
interface Hit { key: string, group: string, words: string, side: string, file?: FileItem, to: string }

const SETTINGS = [
  { words: 'Setup: site name and address', to: '/desk/setup' },
  { words: 'All pages', to: '/desk' },
]

const pages = usePages()
const placer = usePlacer()
const field = ref<HTMLInputElement>()
const text = ref('')
const files = ref<FileItem[]>([])
const active = ref(0)
const open = ref(false)
const list = useId()

const { search, settled } = useFileSearch(8)
watch([text, open], async () => {
  active.value = 0
  if (!open.value) return
  const found = await search(text.value.trim())
  if (found) files.value = found
})

const hits = computed<Hit[]>(() => {
  const q = text.value.trim().toLowerCase()
  const matches = (words: string) => words.toLowerCase().includes(q)
  return [
    ...pages.items.filter(page => matches(page.title) || matches(page.slug)).slice(0, 6)
      .map(page => ({ key: page.id, group: 'Pages', words: page.title, side: `/${page.slug}`, to: `/desk/pages/${page.id}` })),
    ...files.value.map(file => ({ key: file.id, group: 'Files', words: file.title, side: `${file.tag}, ${formatSize(file.size)}`, file, to: `/desk/files/${file.id}` })),
    ...SETTINGS.filter(item => q && matches(item.words)).map(item => ({ key: item.to, group: 'Settings', words: item.words, side: '', to: item.to })),
  ]
})

function close() {
  open.value = false
  text.value = ''
  field.value?.blur()
}

async function take(hit: Hit | undefined, place = false) {
  if (!hit) return
  close()
  if (place && hit.file && placer.current) placer.current.place(hit.file)
  else await navigateTo(hit.to)
}

function onKey(event: KeyboardEvent) {
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (step) active.value = (active.value + step + hits.value.length) % Math.max(1, hits.value.length)
  // Fast typists press Enter before the answer is there.
  else if (event.key === 'Enter') void settled().then(() => take(hits.value[active.value], event.shiftKey))
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
    <input
      ref="field" v-model="text" type="search" role="combobox" aria-label="Find files, pages and settings" placeholder="Find files and pages" autocomplete="off" spellcheck="false"
      :aria-expanded="open" :aria-controls="list" aria-autocomplete="list" :aria-activedescendant="open && hits.length ? `${list}-${active}` : undefined"
      @focus="open = true" @blur="open = false" @keydown="onKey"
    >
    <kbd aria-hidden="true">Ctrl K</kbd>
    <div v-show="open" class="results">
      <ul :id="list" role="listbox" aria-label="Found">
        <li
          v-for="(hit, index) in hits" :id="`${list}-${index}`" :key="hit.key" role="option" :aria-selected="index === active"
          :class="{ first: index > 0 && hits[index - 1]!.group !== hit.group }" @mousemove="active = index" @mousedown.prevent @click="take(hit, $event.shiftKey)"
        >
          <span class="group">{{ index === 0 || hits[index - 1]!.group !== hit.group ? hit.group : '' }}</span>
          <span class="words">{{ hit.words }}</span><span class="side">{{ hit.side }}</span>
        </li>
      </ul>
      <p v-if="!hits.length" class="none">Nothing has that in its name.</p>
      <p v-else-if="placer.current" class="tip">Enter opens. Shift and Enter place a file on this page.</p>
    </div>
  </div>
</template>

<style scoped>
.find { position: relative; flex: 1; max-width: 460px; }
input { width: 100%; height: 30px; padding: 0 60px 0 10px; background: #fff; }
kbd { position: absolute; right: 8px; top: 6px; pointer-events: none; }
.results { position: absolute; z-index: 100; top: 34px; left: 0; right: 0; min-width: 340px; background: #fff; border: 1px solid var(--ink); border-radius: 4px; padding: 4px; }
ul { list-style: none; margin: 0; padding: 0; max-height: 420px; overflow: auto; }
li { display: grid; grid-template-columns: 58px minmax(0, 1fr) auto; gap: 8px; align-items: center; height: 30px; padding: 0 6px; border-radius: 3px; cursor: pointer; }
li.first { border-top: 1px solid var(--line); border-radius: 0 0 3px 3px; }
li[aria-selected='true'] { background: #DDEBE9; box-shadow: inset 3px 0 var(--water); }
.group { color: var(--soft); font-size: 12px; }
.words { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.side { font: 12px 'IBM Plex Mono', monospace; color: var(--soft); }
.none, .tip { padding: 6px 8px 3px; color: var(--soft); font-size: 12.5px; }
@media (max-width: 799px) { kbd { display: none; } .results { position: fixed; left: 8px; right: 8px; top: 46px; } }
</style>
