<script setup lang="ts">
import { defaultRangeExtractor, useVirtualizer, type Range } from '@tanstack/vue-virtual'
import type { FoundFile } from '~~/core/files/fileItem'
import { COLUMNS, columnsThatFit, type ColumnKey } from '~/library/fileColumns'
import type { Row } from '~/library/rows'

/** The lines of the library, of which only those that are seen exist: folders, files as rows or tiles. */
const emit = defineEmits<{ folderSettings: [id: string]; move: []; remove: [] }>()

const listing = useListing()
const boards = useBoards()
const folders = useFolders()
const selection = useSelection()
const library = useLibrary()
const router = useRouter()

const scroller = ref<HTMLElement>()
const { width } = useElementSize(scroller)
const narrow = computed(() => width.value > 0 && width.value < 420)
const TILE_WIDTH = 148
const TILE_HEIGHT = 190
const perRow = computed(() => Math.max(1, Math.floor((width.value - 16) / TILE_WIDTH)))
const { rows, main, isTree } = useLibraryRows(() => perRow.value)

const columns = computed<ColumnKey[]>(() => {
  // Where files of many folders stand together, one wants to know where they lie.
  const chosen = listing.filtered && !listing.columns.includes('folder') ? [...listing.columns, 'folder' as const] : listing.columns
  return columnsThatFit(chosen, width.value)
})
const template = computed(() =>
  narrow.value ? '28px minmax(0, 1fr)' : ['28px', 'minmax(0, 1fr)', ...columns.value.map(key => `${COLUMNS[key].width}px`)].join(' '),
)

function heightOf(index: number): number {
  const row = rows.value.at(index)
  if (row?.kind === 'tiles') return TILE_HEIGHT
  if (row?.kind === 'file' && row.index >= row.window.state.named) return 52
  return row?.kind === 'file' && narrow.value ? 48 : 32
}

/** the line the keyboard stands on */
const active = ref(0)
const keepActive = (range: Range) => {
  const seen = defaultRangeExtractor(range)
  return active.value < range.count && !seen.includes(active.value) ? [...seen, active.value].sort((a, b) => a - b) : seen
}

const virtualizer = useVirtualizer(
  computed(() => ({
    count: rows.value.count,
    getScrollElement: () => scroller.value ?? null,
    estimateSize: heightOf,
    overscan: 14,
    rangeExtractor: keepActive,
  })),
)
watch([() => rows.value, narrow], () => {
  virtualizer.value.measure()
  // There is always a line the keyboard can come to.
  active.value = Math.max(0, Math.min(active.value, rows.value.count - 1))
})
const lines = computed(() => virtualizer.value.getVirtualItems().map(line => ({ ...line, row: rows.value.at(line.index) })))

// Where the line with the keyboard goes away, it goes on in the one that is there instead.
const holds = () => !!scroller.value?.contains(document.activeElement)
let held = false
watch(lines, () => (held = holds()), { flush: 'pre' })
watch(
  lines,
  () => {
    if (held && !holds()) void focusActive()
  },
  { flush: 'post' },
)

// The line the keyboard stands on is kept wherever it is; what is seen is only the stretch around the middle.
watch(
  () => [rows.value, virtualizer.value.range?.startIndex, virtualizer.value.range?.endIndex] as const,
  ([all, first, last]) => {
    if (first !== undefined && last !== undefined) all.look(first, last)
  },
)

// Another list begins at its top; the keyboard goes on in it, where it stood in the one before.
watch(
  () => listing.queryFor(),
  () => {
    const held = scroller.value?.contains(document.activeElement)
    scroller.value?.scrollTo({ top: 0 })
    active.value = 0
    anchor = 0
    if (held) void focusWhenThere()
  },
)
watch(
  () => boards.libraryCalled,
  () => void focusWhenThere(),
)

async function focusWhenThere() {
  const from = document.activeElement
  await nextTick()
  await until(() => main.value?.query === listing.queryFor() && main.value.state.loaded && folders.loaded).toBe(true, { timeout: 3000 })
  await nextTick()
  // Whoever went elsewhere meanwhile is not called back.
  const now = document.activeElement
  if (now === from || now === document.body || holds()) await focusActive()
}

async function focusActive() {
  if (rows.value.count) await focusLine(active.value)
  else document.querySelector<HTMLElement>('.library .put-in button')?.focus()
}

function filesOf(row: Row | undefined): (FoundFile | undefined)[] {
  if (row?.kind === 'file') return [row.window.at(row.index)]
  return row?.kind === 'tiles' ? Array.from({ length: row.count }, (_, offset) => row.window.at(row.index + offset)) : []
}

/* ---- choosing ---- */
let anchor = 0

async function chooseTo(index: number, add: boolean) {
  await selection.attempt(async () => selection.choose(await rows.value.between(Math.min(anchor, index), Math.max(anchor, index)), { add }))
}

function onClick(event: MouseEvent, index: number, kind: 'files' | 'folders', id: string) {
  if ((event.target as HTMLElement).closest('a, button, input')) return
  active.value = index
  // Keys go on from where the mouse was.
  void focusLine(index)
  if (event.shiftKey) return void chooseTo(index, event.ctrlKey || event.metaKey)
  anchor = index
  if (event.ctrlKey || event.metaKey) selection.toggle(kind, id)
  else selection.choose({ files: [], folders: [], [kind]: [id] })
}

function onToggle(event: MouseEvent, index: number, kind: 'files' | 'folders', id: string) {
  if (event.shiftKey) return void chooseTo(index, true)
  anchor = index
  active.value = index
  selection.toggle(kind, id)
}

async function chooseAll() {
  await selection.attempt(async () => selection.choose(await rows.value.between(0, rows.value.count - 1)))
}

const { box, startSweep } = useSweep(scroller, async (area, add) => {
  const inside = virtualizer.value.getVirtualItems().filter(line => line.start < area.bottom && line.end > area.top)
  const [first, last] = [inside[0]?.index, inside.at(-1)?.index]
  if (first === undefined || last === undefined) return
  if (listing.view === 'tiles') {
    const tiles = [...scroller.value!.querySelectorAll<HTMLElement>('[data-file]')].filter(tile => {
      const { left, right, top, bottom } = tile.getBoundingClientRect()
      const origin = scroller.value!.getBoundingClientRect()
      return (
        left - origin.left < area.right &&
        right - origin.left > area.left &&
        top - origin.top + scroller.value!.scrollTop < area.bottom &&
        bottom - origin.top + scroller.value!.scrollTop > area.top
      )
    })
    selection.choose({ files: tiles.map(tile => tile.dataset.file!), folders: [] }, { add })
    return
  }
  selection.choose(await rows.value.between(first, last), { add })
})

/* ---- dragging ---- */
const { over, dropOn } = useFolderDrop()

function onDragStart(event: DragEvent, kind: 'files' | 'folders', id: string) {
  const things = selection.around(kind, id)
  library.learn(
    rows.value.segments.flatMap(segment =>
      'window' in segment ? segment.window.held().filter(file => things.files.includes(file.id)) : [],
    ),
  )
  dragThings(event, things, wordsForSelection(things))
}

/** in a folder with its own order: the line something would go in front of */
const dropBefore = ref<number>()
const ordered = computed(() => listing.order === 'own' && !listing.filtered && !listing.bin && !isTree.value && listing.folder !== null)

function onRowDragOver(event: DragEvent, index: number) {
  if (!ordered.value || !carriesFiles(event, { ours: true }) || !dragged.value?.files.length) return
  event.preventDefault()
  event.stopPropagation()
  const { top, height } = (event.currentTarget as HTMLElement).getBoundingClientRect()
  dropBefore.value = event.clientY < top + height / 2 ? index : index + 1
}

async function onRowDrop(event: DragEvent) {
  const things = droppedThings(event)
  const at = dropBefore.value
  dropBefore.value = undefined
  if (!things || at === undefined || !ordered.value) return
  event.preventDefault()
  event.stopPropagation()
  await selection.attempt(() => selection.move(things, listing.folder, rows.value.fileAt(at)?.id))
}

/** By key: one place up or down in the folder's own order. */
async function moveBy(step: -1 | 1) {
  const file = rows.value.fileAt(active.value)
  if (!ordered.value || !file) return
  const before = rows.value.fileAt(step < 0 ? active.value - 1 : active.value + 2)
  if (step < 0 && !before) return
  await selection.attempt(() => selection.move({ files: [file.id], folders: [] }, listing.folder, before?.id))
  await focusLine(Math.max(0, Math.min(rows.value.count - 1, active.value + step)))
}

/* ---- the keyboard ---- */
const renaming = ref<string>()
let tile = 0

/** The name of a folder is written, or has been: the keyboard goes on where it stands. */
async function showRenaming(folder: string, index: number, on: boolean) {
  renaming.value = on ? folder : undefined
  if (!on) await focusLine(index)
}
async function focusLine(index: number) {
  active.value = index
  virtualizer.value.scrollToIndex(index)
  await nextTick()
  const line = scroller.value?.querySelector(`[data-line="${index}"]`)
  const links = line?.querySelectorAll<HTMLElement>('a.title') ?? []
  links[Math.min(tile, links.length - 1)]?.focus()
}

const STEPS: Record<string, (at: number, last: number) => number> = {
  ArrowDown: at => at + 1,
  ArrowUp: at => at - 1,
  PageDown: at => at + 15,
  PageUp: at => at - 15,
  Home: () => 0,
  End: (_, last) => last,
}

function currentThing(): { kind: 'files' | 'folders'; id: string } | undefined {
  const row = rows.value.at(active.value)
  if (row?.kind === 'folder') return { kind: 'folders', id: row.folder.id }
  const file = row?.kind === 'tiles' ? row.window.at(row.index + Math.min(tile, row.count - 1)) : rows.value.fileAt(active.value)
  return file && { kind: 'files', id: file.id }
}

/** What an act of the keyboard means: the selection, or else the line it stands on. */
function acted() {
  const thing = currentThing()
  if (!selection.count && thing) selection.choose({ files: [], folders: [], [thing.kind]: [thing.id] })
  return selection.count > 0
}

function turnBranch(open: boolean) {
  const row = rows.value.at(active.value)
  if (row?.kind !== 'folder' || !isTree.value) return false
  const next = new Set(listing.expanded)
  if (open) next.add(row.folder.id)
  else next.delete(row.folder.id)
  listing.expanded = next
  return true
}

function onCommand(event: KeyboardEvent): boolean {
  const thing = currentThing()
  switch (event.key) {
    case ' ':
      if (thing) selection.toggle(thing.kind, thing.id)
      anchor = active.value
      return true
    case 'Escape':
      selection.clear()
      return true
    case 'Delete':
      if (acted()) emit('remove')
      return true
    case 'm':
      if (acted()) emit('move')
      return true
    case 't':
      if (acted()) void selection.attempt(() => selection.pickUp(selection.chosen))
      return true
    case 'p':
      if (acted()) void selection.attempt(() => selection.placeAll(selection.chosen))
      return true
    case 'F2':
      if (thing?.kind === 'folders') renaming.value = thing.id
      else if (thing) void router.push({ path: `/desk/files/${thing.id}`, hash: '#title' })
      return true
    case 'Backspace':
      if (listing.openFolder) listing.open(listing.openFolder.parent)
      return true
    case 'ArrowRight':
      return listing.view === 'tiles' ? step(1) : turnBranch(true)
    case 'ArrowLeft':
      return listing.view === 'tiles' ? step(-1) : turnBranch(false)
    default:
      return false
  }
}

/** In tiles: to the neighbour beside. */
function step(by: 1 | -1): boolean {
  const row = rows.value.at(active.value)
  if (row?.kind !== 'tiles') return false
  tile += by
  if (tile >= row.count && active.value < rows.value.count - 1) {
    tile = 0
    void focusLine(active.value + 1)
  } else if (tile < 0 && active.value > 0) {
    tile = perRow.value - 1
    void focusLine(active.value - 1)
  } else {
    tile = Math.max(0, Math.min(row.count - 1, tile))
    void focusLine(active.value)
  }
  return true
}

function onKey(event: KeyboardEvent) {
  if ((event.target as HTMLElement).tagName === 'INPUT' && (event.target as HTMLInputElement).type === 'text') return
  const control = event.ctrlKey || event.metaKey
  const to = STEPS[event.key]
  if (control && event.key.toLowerCase() === 'a') {
    void chooseAll()
  } else if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
    void moveBy(event.key === 'ArrowUp' ? -1 : 1)
  } else if (to && !control && !event.altKey) {
    const index = Math.max(0, Math.min(rows.value.count - 1, to(active.value, rows.value.count - 1)))
    if (event.shiftKey) void chooseTo(index, false)
    else anchor = index
    void focusLine(index)
  } else if (control || event.altKey || !onCommand(event)) {
    return
  }
  event.preventDefault()
  event.stopPropagation()
}

function onFocus(event: FocusEvent) {
  const line = (event.target as HTMLElement).closest<HTMLElement>('[data-line]')
  if (line) active.value = Number(line.dataset.line)
}

defineExpose({
  focus: focusActive,
  chooseAll,
  total: computed(() => main.value?.state.total),
  loaded: computed(() => !!main.value?.state.loaded && folders.loaded),
  empty: computed(() => rows.value.count === 0),
})
</script>

<template>
  <div
    ref="scroller"
    class="rows"
    :class="{ narrow, ordered }"
    :style="{ '--cols': template }"
    @keydown="onKey"
    @focusin="onFocus"
    @pointerdown="startSweep"
  >
    <div v-if="rows.count && listing.view !== 'tiles' && !narrow" class="columns">
      <span />
      <span class="named"
        ><VBtn color="soft" class="by-type" @click="listing.sortBy('type', false)">
          Type<SortMark :order="listing.order" column="type" /></VBtn
        ><VBtn color="soft" @click="listing.sortBy('title', false)">Title<SortMark :order="listing.order" column="title" /></VBtn
      ></span>
      <span v-for="key in columns" :key="key" :class="{ num: COLUMNS[key].numeric }">
        <VBtn v-if="COLUMNS[key].sort" color="soft" @click="listing.sortBy(COLUMNS[key].sort!, !!COLUMNS[key].downFirst)">
          {{ COLUMNS[key].words }}<SortMark :order="listing.order" :column="COLUMNS[key].sort!" />
        </VBtn>
        <template v-else>{{ COLUMNS[key].words }}</template>
      </span>
    </div>
    <div
      v-if="rows.count"
      class="lines"
      :role="isTree ? 'treegrid' : 'grid'"
      aria-label="Files"
      aria-multiselectable="true"
      :aria-rowcount="rows.count"
      :style="{ height: `${virtualizer.getTotalSize()}px` }"
    >
      <template v-for="line in lines" :key="line.row?.kind === 'folder' ? line.row.folder.id : String(line.key)">
        <div
          v-if="line.row?.kind === 'folder'"
          class="line"
          role="row"
          :data-line="line.index"
          :aria-rowindex="line.index + 1"
          :aria-selected="selection.has('folders', line.row.folder.id)"
          :aria-level="isTree ? line.row.level + 1 : undefined"
          :aria-expanded="isTree ? listing.expanded.has(line.row.folder.id) : undefined"
          :class="{ over: over === line.row.folder.id }"
          :style="{ height: `${line.size}px`, transform: `translateY(${line.start}px)` }"
          draggable="true"
          @click="onClick($event, line.index, 'folders', line.row.folder.id)"
          @dblclick="listing.open(line.row.folder.id)"
          @dragstart="onDragStart($event, 'folders', line.row.folder.id)"
          @dragend="endDrag()"
          v-on="dropOn(line.row.folder.id)"
        >
          <FolderStrip
            :folder="line.row.folder"
            :level="line.row.level"
            :branch="isTree"
            :chosen="selection.has('folders', line.row.folder.id)"
            :tabbable="line.index === active"
            :renaming="renaming === line.row.folder.id"
            @update:renaming="showRenaming(line.row.folder.id, line.index, $event)"
            @toggle="onToggle($event, line.index, 'folders', line.row.folder.id)"
            @settings="emit('folderSettings', line.row.folder.id)"
          />
        </div>
        <div
          v-else-if="line.row?.kind === 'tiles'"
          class="line tiles"
          role="row"
          :data-line="line.index"
          :aria-rowindex="line.index + 1"
          :style="{ 'height': `${line.size}px`, 'transform': `translateY(${line.start}px)`, '--per-row': perRow }"
        >
          <template v-for="(file, offset) in filesOf(line.row)" :key="file?.id ?? offset">
            <div
              v-if="file"
              role="gridcell"
              :aria-selected="selection.has('files', file.id)"
              :data-file="file.id"
              draggable="true"
              class="tile-cell"
              @click="onClick($event, line.index, 'files', file.id)"
              @dblclick="router.push(`/desk/files/${file.id}`)"
              @dragstart="onDragStart($event, 'files', file.id)"
              @dragend="endDrag()"
            >
              <FileTile
                :file="file"
                :chosen="selection.has('files', file.id)"
                :tabbable="line.index === active && offset === 0"
                @toggle="onToggle($event, line.index, 'files', file.id)"
              />
            </div>
            <div v-else role="gridcell" class="unread" />
          </template>
        </div>
        <div
          v-else-if="line.row"
          class="line"
          role="row"
          :data-line="line.index"
          :aria-rowindex="line.index + 1"
          :aria-level="isTree ? line.row.level + 1 : undefined"
          :aria-selected="!!rows.fileAt(line.index) && selection.has('files', rows.fileAt(line.index)!.id)"
          :class="{ before: dropBefore === line.index, after: dropBefore === line.index + 1 && line.index === rows.count - 1 }"
          :style="{ height: `${line.size}px`, transform: `translateY(${line.start}px)` }"
          draggable="true"
          @click="onClick($event, line.index, 'files', rows.fileAt(line.index)?.id ?? '')"
          @dblclick="router.push(`/desk/files/${rows.fileAt(line.index)?.id}`)"
          @dragstart="onDragStart($event, 'files', rows.fileAt(line.index)?.id ?? '')"
          @dragend="endDrag()"
          @dragover="onRowDragOver($event, line.index)"
          @dragleave="dropBefore = undefined"
          @drop="onRowDrop"
        >
          <FileRow
            v-if="rows.fileAt(line.index)"
            :file="rows.fileAt(line.index)!"
            :columns="narrow ? [] : columns"
            :narrow="narrow"
            :level="line.row.level"
            :tabbable="line.index === active"
            :chosen="selection.has('files', rows.fileAt(line.index)!.id)"
            @toggle="onToggle($event, line.index, 'files', rows.fileAt(line.index)!.id)"
          />
          <div v-else class="unread" role="gridcell" />
        </div>
      </template>
    </div>
    <div
      v-if="box"
      class="sweep"
      :style="{ left: `${box.left}px`, top: `${box.top}px`, width: `${box.right - box.left}px`, height: `${box.bottom - box.top}px` }"
    />
    <slot v-if="main?.state.loaded && !main.state.total" name="empty" />
  </div>
</template>

<style scoped>
.rows {
  position: relative;
  flex: 1;
  min-height: 0;
  overflow: auto;
  background: #fff;
}
.lines {
  position: relative;
}
.line {
  position: absolute;
  left: 0;
  right: 0;
  top: 0;
}
.line.over :deep(.folder-strip) {
  background: #bfdad6;
  box-shadow: inset 0 0 0 2px var(--water);
}
.line.before {
  box-shadow: inset 0 3px var(--water);
  z-index: 1;
}
.line.after {
  box-shadow: inset 0 -3px var(--water);
  z-index: 1;
}
.line.before :deep(.file-row),
.line.after :deep(.file-row) {
  background: transparent;
}
.tiles {
  display: grid;
  grid-template-columns: repeat(var(--per-row), minmax(0, 1fr));
  gap: 0 4px;
  padding: 4px 8px 0;
  box-sizing: border-box;
}
.tile-cell {
  min-width: 0;
  min-height: 0;
}
.unread {
  height: 100%;
  background: #f3f6f5;
  border-bottom: 1px solid #e4eae8;
  box-sizing: border-box;
}
.columns {
  position: sticky;
  top: 0;
  z-index: 3;
  display: grid;
  grid-template-columns: var(--cols);
  gap: 0 10px;
  padding-right: 10px;
  font-size: 12px;
  line-height: 24px;
  color: var(--soft);
  background: #f5f8f7;
  border-bottom: 1px solid var(--line);
}
.columns button {
  font-size: 12px;
  white-space: nowrap;
}
.columns button:hover {
  color: var(--ink);
  text-decoration: underline;
  text-underline-offset: 3px;
}
.named {
  display: flex;
  gap: 10px;
}
.by-type {
  min-width: 42px;
  text-align: left;
}
.num {
  text-align: right;
}
.sweep {
  position: absolute;
  z-index: 5;
  background: #0e6a6822;
  border: 1px solid var(--water);
  pointer-events: none;
}
</style>
