<script setup lang="ts">
import { takenDays } from '~~/core/files/query'
import { defaultRangeExtractor, useVirtualizer, type Range } from '@tanstack/vue-virtual'
import type { FoundFile } from '~~/core/files/fileItem'
import { COLUMNS, columnsThatFit, type ColumnKey } from '~/library/fileColumns'
import { useLineChoice } from '~/library/lineChoice'
import { useLineDrag } from '~/library/lineDrag'
import { useLineFocus } from '~/library/lineFocus'
import { useLineKeys } from '~/library/lineKeys'
import type { Row } from '~/library/rows'

/** The lines of the library, of which only those that are seen exist: folders, files as rows or tiles. */
const emit = defineEmits<{ folderSettings: [id: string]; move: []; remove: [] }>()

const listing = useListing()
const folders = useFolders()
const selection = useSelection()
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

const focus = useLineFocus({
  scroller,
  rows,
  main,
  virtualizer: () => virtualizer.value,
  onEmpty: () => document.querySelector<HTMLElement>('.library .put-in button')?.focus(),
})
const { active } = focus
/** The line the keyboard stands on is there, wherever it is. */
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
watch([() => rows.value, narrow], () => virtualizer.value.measure())
const lines = computed(() => virtualizer.value.getVirtualItems().map(line => ({ ...line, row: rows.value.at(line.index) })))

// Where the line with the keyboard goes away, it goes on in the one that is there instead.
let held = false
watch(lines, () => (held = focus.holds()), { flush: 'pre' })
watch(
  lines,
  () => {
    if (held && !focus.holds()) void focus.focusActive()
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

function filesOf(row: Row | undefined): (FoundFile | undefined)[] {
  if (row?.kind === 'file') return [row.window.at(row.index)]
  return row?.kind === 'tiles' ? Array.from({ length: row.count }, (_, offset) => row.window.at(row.index + offset)) : []
}

const choice = useLineChoice({ scroller, rows, virtualizer: () => virtualizer.value, focus })
const { box, startSweep, onClick, onToggle } = choice
const { over, dropOn } = useFolderDrop()
const { dragOf, takesLine, dropBefore, ordered, moveBy } = useLineDrag({ rows, isTree, focus })
const { onKey, renaming, showRenaming } = useLineKeys({
  rows,
  isTree,
  focus,
  choice,
  moveBy,
  onMove: () => emit('move'),
  onRemove: () => emit('remove'),
})

defineExpose({
  focus: focus.focusActive,
  chooseAll: choice.chooseAll,
  total: computed(() => main.value?.state.total),
  loaded: computed(() => !!main.value?.state.loaded && folders.loaded),
  empty: computed(() => rows.value.count === 0),
})
/** While files stand in the order of some days' downloads, the column has those. */
const days = computed(() => takenDays(listing.order))
const wordsOfColumn = (key: ColumnKey) => (key === 'downloads' && days.value ? `In ${days.value} days` : COLUMNS[key].words)
const sortOf = (key: ColumnKey) => (key === 'downloads' && days.value ? `taken${days.value}` : COLUMNS[key].sort!)
</script>

<template>
  <div
    ref="scroller"
    v-drag-scroll
    class="rows"
    :class="{ narrow, ordered }"
    :style="{ '--cols': template }"
    @keydown="onKey"
    @focusin="focus.onFocus"
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
          {{ wordsOfColumn(key) }}<SortMark :order="listing.order" :column="sortOf(key)" />
        </VBtn>
        <template v-else>{{ wordsOfColumn(key) }}</template>
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
          v-drag="dragOf('folders', line.row.folder.id)"
          v-drop="dropOn(line.row.folder.id)"
          class="line"
          role="row"
          :data-line="line.index"
          :aria-rowindex="line.index + 1"
          :aria-selected="selection.has('folders', line.row.folder.id)"
          :aria-level="isTree ? line.row.level + 1 : undefined"
          :aria-expanded="isTree ? listing.expanded.has(line.row.folder.id) : undefined"
          :class="{ over: over === line.row.folder.id }"
          :style="{ height: `${line.size}px`, transform: `translateY(${line.start}px)` }"
          @click="onClick($event, line.index, 'folders', line.row.folder.id)"
          @dblclick="listing.open(line.row.folder.id)"
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
              v-drag="dragOf('files', file.id)"
              role="gridcell"
              :aria-selected="selection.has('files', file.id)"
              :data-file="file.id"
              class="tile-cell"
              @click="onClick($event, line.index, 'files', file.id)"
              @dblclick="router.push(`/desk/files/${file.id}`)"
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
          v-drag="dragOf('files', rows.fileAt(line.index)?.id ?? '')"
          v-drop="takesLine(line.index)"
          class="line"
          role="row"
          :data-line="line.index"
          :aria-rowindex="line.index + 1"
          :aria-level="isTree ? line.row.level + 1 : undefined"
          :aria-selected="!!rows.fileAt(line.index) && selection.has('files', rows.fileAt(line.index)!.id)"
          :class="{ before: dropBefore === line.index, after: dropBefore === line.index + 1 && line.index === rows.count - 1 }"
          :style="{ height: `${line.size}px`, transform: `translateY(${line.start}px)` }"
          @click="onClick($event, line.index, 'files', rows.fileAt(line.index)?.id ?? '')"
          @dblclick="router.push(`/desk/files/${rows.fileAt(line.index)?.id}`)"
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
