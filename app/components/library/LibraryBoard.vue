<script setup lang="ts">
import { FILE_SORTS } from '~~/core/files/item'

const library = useLibrary()
const uploads = useUploads()
const boards = useBoards()

const over = ref(0)
const SORT_WORDS = { newest: 'Newest first', oldest: 'Oldest first', title: 'By title', size: 'Largest first', used: 'Most used first' }

watch(() => [library.query.q, library.query.sort, library.query.bin], () => library.load().catch(error => useNotices().say(wordsOf(error), { tone: 'attention' })))

async function choose() {
  uploads.add(await chooseFiles({ multiple: true }))
}

function onDrop(event: DragEvent) {
  over.value = 0
  const files = [...event.dataTransfer?.files ?? []]
  if (!files.length) return
  event.preventDefault()
  uploads.add(files)
}

/** Arrow keys walk through the rows. */
function onKey(event: KeyboardEvent) {
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (!step) return
  const rows = [...(event.currentTarget as HTMLElement).querySelectorAll<HTMLElement>('a.title')]
  const index = rows.indexOf(document.activeElement as HTMLElement)
  if (index < 0) return
  event.preventDefault()
  rows[Math.min(rows.length - 1, Math.max(0, index + step))]?.focus()
}
</script>

<template>
  <section
    class="library" aria-label="Library" :class="{ over: over > 0 }"
    @dragenter="carriesFiles($event, { ours: false }) && over++" @dragleave="carriesFiles($event, { ours: false }) && over--"
    @dragover="carriesFiles($event, { ours: false }) && $event.preventDefault()" @drop="onDrop"
  >
    <header class="board-head">
      <h2 class="h1">{{ library.query.bin ? 'Bin' : 'Library' }}</h2>
      <span class="count">{{ counted(library.total, 'file') }}</span>
      <button type="button" class="plain strong" @click="choose">Put files in…</button>
      <button type="button" class="plain fold" title="Fold the library away" aria-label="Fold the library away" @click="boards.folded = 'library'">‹</button>
    </header>
    <div class="filters">
      <input v-model="library.query.q" type="search" placeholder="Part of a name" aria-label="Show files with this in their name">
      <select v-model="library.query.sort" aria-label="Order of the files">
        <option v-for="sort in FILE_SORTS" :key="sort" :value="sort">{{ SORT_WORDS[sort] }}</option>
      </select>
      <button type="button" class="plain" :aria-pressed="library.query.bin" @click="library.query.bin = !library.query.bin">{{ library.query.bin ? 'Leave the bin' : 'Bin' }}</button>
    </div>
    <div class="rows" @keydown="onKey">
      <div v-if="library.items.length" class="columns" aria-hidden="true"><span>Type</span><span>Title</span><span class="num">Size</span><span class="date">Added</span><span class="used">Used</span><span class="wide num">Downloads</span></div>
      <ul v-if="library.items.length" aria-label="Files">
        <FileRow v-for="file in library.items" :key="file.id" :file="file" />
      </ul>
      <button v-if="library.items.length < library.total" type="button" class="plain more" @click="library.load(true)">Show more of the {{ library.total }}</button>
      <div v-if="library.loaded && !library.items.length" class="empty">
        <template v-if="library.query.q">
          <p>No file has “{{ library.query.q }}” in its name.</p>
          <button type="button" class="plain" @click="library.query.q = ''">Show all files</button>
        </template>
        <p v-else-if="library.query.bin">The bin is empty. What is deleted stays here for 30 days.</p>
        <template v-else>
          <p class="big">Drop files here.</p>
          <p>PDFs, documents, pictures, zips: each gets an address that never changes.</p>
          <button type="button" class="main" @click="choose">Choose files…</button>
        </template>
      </div>
    </div>
    <div v-if="over > 0" class="veil">Drop to put into the library</div>
  </section>
</template>

<style scoped>
.library { position: relative; display: flex; flex-direction: column; min-height: 0; height: 100%; container-type: inline-size; background: var(--grey); }
.count { color: var(--soft); margin-right: auto; }
.filters { display: flex; gap: 6px; padding: 6px 10px; border-bottom: 1px solid var(--line); }
.filters input { flex: 1; min-width: 60px; }
.filters button[aria-pressed='true'] { background: #CBD8D5; }
.rows { flex: 1; min-height: 0; overflow: auto; background: #fff; }
ul { list-style: none; margin: 0; padding: 0; }
.columns { position: sticky; top: 0; z-index: 2; display: grid; grid-template-columns: var(--cols); gap: 0 10px; padding: 0 10px; font-size: 12px; line-height: 24px; color: var(--soft); background: #F5F8F7; border-bottom: 1px solid var(--line); }
.rows { --cols: 48px minmax(0, 1fr) 60px 58px 68px; }
.num { text-align: right; }
.wide { display: none; }
.more { display: block; margin: 8px auto; }
.empty { padding: 48px 24px; text-align: center; color: var(--soft); display: grid; gap: 10px; justify-items: center; }
.empty .big { font-size: 20px; color: var(--ink); }
.veil { position: absolute; inset: 6px; display: grid; place-items: center; z-index: 10; font-size: 18px; font-weight: 600; background: #E1EFEDEE; border: 2px dashed var(--water); border-radius: 4px; pointer-events: none; }
@container (min-width: 560px) {
  .rows { --cols: 48px minmax(0, 1fr) 64px 62px 72px 76px; }
  .wide { display: block; }
}
@container (max-width: 400px) {
  .columns { display: none; }
}
</style>
