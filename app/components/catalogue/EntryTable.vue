<script setup lang="ts">
import { mdiArrowDown, mdiArrowUp } from '@mdi/js'
import { useVirtualizer } from '@tanstack/vue-virtual'
import { TITLE, isChoice, isFileKind, isNumeric, type Field } from '~~/core/catalogue/field'
import { readCells, writeCells } from '~~/core/catalogue/clipboard'
import type { EntryItem, Value } from '~~/core/catalogue/entry'
import { compareValues, titleOf } from '~~/core/catalogue/values'
import { cellDraft, cellWords, readDraft } from '~/catalogue/cells'
import type { CellChange } from '~/stores/entries'
import { bringsFiles, type Carried } from '~/composables/carried'

/** The entries of a catalogue as a table that is written in where it stands. */
const props = defineProps<{ fields: Field[]; items: EntryItem[]; one: string }>()
const emit = defineEmits<{
  /** files that are dropped, or chosen, for a field: each finds its entry, or goes to the one it was dropped on */
  files: [field: Field, carried: Carried, entry?: EntryItem]
  fields: []
}>()
const chosen = defineModel<Set<string>>('chosen', { required: true })
const current = defineModel<string | undefined>('current', { required: true })

const entries = useEntries()
const notices = useNotices()
const rights = useRights()
const { speech } = storeToRefs(useSpeech())
const writes = computed(() => rights.may('write'))

const columns = computed(() => props.fields.filter(({ listed, id }) => listed || id === TITLE))
const sorting = ref<{ field: string; down: boolean }>()
const rows = computed(() => {
  const field = sorting.value && props.fields.find(({ id }) => id === sorting.value!.field)
  if (!field) return props.items
  const compare = compareValues(field, speech.value)
  const way = sorting.value!.down ? -1 : 1
  return [...props.items].sort((a, b) => way * compare(a.values[field.id], b.values[field.id]))
})

function sortBy(id: string) {
  const now = sorting.value
  sorting.value = now?.field !== id ? { field: id, down: false } : now.down ? undefined : { field: id, down: true }
}

const WIDTHS: Partial<Record<Field['kind'], number>> = {
  longText: 220,
  yesNo: 90,
  number: 100,
  money: 100,
  date: 116,
  file: 190,
  files: 190,
  link: 190,
}
/** Room for what stands in it, and for its heading. */
const widthOf = ({ id, kind, name, unit }: Field) =>
  Math.max(id === TITLE ? 220 : (WIDTHS[kind] ?? 150), (name.length + unit.length) * 8 + 40)
/** Rows are laid out one by one: their columns are as wide as those of the heading. */
const template = computed(() =>
  ['34px', ...columns.value.map(field => `minmax(${widthOf(field)}px, ${field.id === TITLE ? 2 : 1}fr)`), '76px'].join(' '),
)
const least = computed(() => columns.value.reduce((sum, field) => sum + widthOf(field), 34 + 76))

const HEIGHT = 33
const scroller = ref<HTMLElement>()
/** Rows above and below those that are seen: few at first, so that these are there soon. */
const overscan = ref(2)
const virtualizer = useVirtualizer(
  computed(() => ({
    count: rows.value.length,
    getScrollElement: () => scroller.value ?? null,
    estimateSize: () => HEIGHT,
    overscan: overscan.value,
  })),
)
const lines = computed(() =>
  virtualizer.value.getVirtualItems().flatMap(line => (rows.value[line.index] ? [{ ...line, row: rows.value[line.index]! }] : [])),
)

whenever(
  () => lines.value.length,
  () => requestAnimationFrame(() => setTimeout(() => (overscan.value = 20))),
  { once: true },
)

/** the cell that the keyboard stands on */
const at = reactive({ row: 0, column: 0 })
/** the cell that is written in; `began` is what it held then */
const editing = ref<{ entry: string; field: string; text: string; value: Value | undefined; began: string }>()

const cellAt = (row: number, column: number) => scroller.value?.querySelector<HTMLElement>(`[data-cell="${row}-${column}"]`)
async function stand(row: number, column: number, focus = true) {
  at.row = Math.max(0, Math.min(row, rows.value.length - 1))
  at.column = Math.max(0, Math.min(column, columns.value.length - 1))
  current.value = rows.value[at.row]?.id
  virtualizer.value.scrollToIndex(at.row)
  await nextTick()
  if (focus) cellAt(at.row, at.column)?.focus()
  cellAt(at.row, at.column)?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
}

const text = computed({
  get: () => editing.value?.text ?? '',
  set: typed => void (editing.value && (editing.value.text = typed)),
})
/** What is chosen, or written at length, is so in the margin. */
const inMargin = ({ kind }: Field) => kind === 'longText' || kind === 'files' || kind === 'pictures' || kind === 'choices'

function edit(typed?: string) {
  const [row, field] = [rows.value[at.row], columns.value[at.column]]
  if (!row || !field || !writes.value) return
  const value = row.values[field.id]
  if (field.kind === 'yesNo') return void write([{ id: row.id, values: { [field.id]: value !== true } }])
  if (inMargin(field)) {
    current.value = row.id
    void nextTick(() => document.querySelector<HTMLElement>(`[data-field="${field.id}"] :is(input, textarea, button)`)?.focus())
    return
  }
  editing.value = { entry: row.id, field: field.id, text: typed ?? cellDraft(field, value), value, began: JSON.stringify(value) ?? '' }
}

async function write(changes: CellChange[]): Promise<boolean> {
  try {
    await entries.change(changes)
    return true
  } catch (error) {
    notices.refused(error)
    return false
  }
}

/** Somebody else wrote in the cell meanwhile: what was typed is said, so that it can be written again. */
function sayChanged({ entry, text }: { entry: string; text: string }, field: Field) {
  const held = entries.byId.get(entry)
  const now = held
    ? `“${titleOf(held.values)}” was changed somewhere else. “${text}” was not written: ${field.name} is “${cellWords(field, held.values[field.id])}” now.`
    : `“${text}” was not written: the entry is in the bin.`
  notices.say(now, { tone: 'attention' })
}

/** Writes what stands in the cell that is edited. @returns whether the keyboard may go on */
async function finish(): Promise<boolean> {
  const now = editing.value
  if (!now) return true
  const field = props.fields.find(({ id }) => id === now.field)!
  const held = entries.byId.get(now.entry)
  if (!held || (JSON.stringify(held.values[now.field]) ?? '') !== now.began) {
    editing.value = undefined
    sayChanged(now, field)
    return true
  }
  try {
    const value = isChoice(field.kind) || isFileKind(field.kind) ? (now.value ?? null) : readDraft(field, now.text)
    editing.value = undefined
    await entries.change([{ id: now.entry, values: { [now.field]: value } }])
    return true
  } catch (error) {
    if (error instanceof ApiProblem && error.status === 409 && error.extra.entry === now.entry && !error.extra.field) sayChanged(now, field)
    else {
      notices.refused(error)
      // What was typed stays to be put right, unless somebody has begun elsewhere.
      editing.value ??= now
    }
    return false
  }
}
async function finishTo(row: number, column: number) {
  if (await finish()) await stand(row, column)
}

function giveUp() {
  editing.value = undefined
  void stand(at.row, at.column)
}

async function take(value: Value | null) {
  if (!editing.value) return
  editing.value.value = value ?? undefined
  await finishTo(at.row, at.column)
}

const isPlain = (event: KeyboardEvent) => event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey

async function onKey(event: KeyboardEvent) {
  const { key, shiftKey } = event
  const command = event.ctrlKey || event.metaKey
  if (editing.value) {
    if (key === 'Escape') giveUp()
    else if (key === 'Enter' && !shiftKey) await finishTo(at.row + 1, at.column)
    else if (key === 'Tab') await finishTo(at.row, at.column + (shiftKey ? -1 : 1))
    else return
    event.preventDefault()
    event.stopPropagation()
    return
  }
  if (!(event.target as HTMLElement).matches('[data-cell]')) return
  const page = Math.max(1, Math.floor((scroller.value?.clientHeight ?? 400) / HEIGHT) - 2)
  const moves: Record<string, [number, number]> = {
    ArrowUp: [at.row - 1, at.column],
    ArrowDown: [at.row + 1, at.column],
    ArrowLeft: [at.row, at.column - 1],
    ArrowRight: [at.row, at.column + 1],
    Home: command ? [0, 0] : [at.row, 0],
    End: command ? [rows.value.length - 1, columns.value.length - 1] : [at.row, columns.value.length - 1],
    PageUp: [at.row - page, at.column],
    PageDown: [at.row + page, at.column],
  }
  const field = columns.value[at.column]
  const row = rows.value[at.row]
  if (key in moves) await stand(...moves[key]!)
  else if (command && key.toLowerCase() === 'z') await (shiftKey ? entries.redo() : entries.undo())
  else if (command && key.toLowerCase() === 'y') await entries.redo()
  else if (key === 'Enter' || key === 'F2') edit()
  else if ((key === 'Delete' || key === 'Backspace') && field && row && field.id !== TITLE && writes.value)
    await write([{ id: row.id, values: { [field.id]: null } }])
  else if (key === ' ' && shiftKey && row) toggle(row.id)
  else if (key === ' ' && field?.kind === 'yesNo') edit()
  else if (isPlain(event) && field && !isFileKind(field.kind)) edit(isChoice(field.kind) ? undefined : key)
  else return
  event.preventDefault()
}

function toggle(id: string) {
  const next = new Set(chosen.value)
  if (!next.delete(id)) next.add(id)
  chosen.value = next
}
const allChosen = computed(() => rows.value.length > 0 && rows.value.every(({ id }) => chosen.value.has(id)))
const toggleAll = () => (chosen.value = allChosen.value ? new Set() : new Set(rows.value.map(({ id }) => id)))

/** Rows of a spreadsheet, from the cell that the keyboard stands on; what goes beyond the last row becomes new entries. */
async function paste(event: ClipboardEvent) {
  if (editing.value || !writes.value || !(event.target as HTMLElement).matches('[data-cell]')) return
  const text = event.clipboardData?.getData('text/plain')
  if (!text) return
  event.preventDefault()
  const table = readCells(text)
  try {
    const read = table.map(cells =>
      Object.fromEntries(
        cells.flatMap((cell, index) => {
          const field = columns.value[at.column + index]
          return field ? [[field.id, readDraft(field, cell)] as const] : []
        }),
      ),
    )
    const there = read.slice(0, rows.value.length - at.row)
    const ids = there.map((_, index) => rows.value[at.row + index]!.id)
    const fresh = read
      .slice(there.length)
      .map(values => Object.fromEntries(Object.entries(values).filter(([, value]) => value !== null)) as Record<string, Value>)
    if (there.length && !(await write(there.map((values, index) => ({ id: ids[index]!, values }))))) return
    if (fresh.length) await entries.create(fresh)
    if (table.length > 1) notices.say(`${counted(table.length, 'row')} pasted${fresh.length ? `, ${fresh.length} of them new` : ''}.`)
  } catch (error) {
    notices.say(`Nothing was pasted. ${wordsOf(error)}`, { tone: 'attention' })
  }
}

function copy(event: ClipboardEvent) {
  const [row, field] = [rows.value[at.row], columns.value[at.column]]
  if (editing.value || !row || !field || !(event.target as HTMLElement).matches('[data-cell]')) return
  event.clipboardData?.setData('text/plain', writeCells([[cellDraft(field, row.values[field.id])]]))
  event.preventDefault()
}

const held = ref('')
const dropOn = (field: Field, entry?: EntryItem) =>
  isFileKind(field.kind) && writes.value
    ? {
        takes: bringsFiles,
        over: () => (held.value = `${field.id} ${entry?.id ?? ''}`),
        out: () => (held.value = ''),
        drop: (carried: Carried) => {
          held.value = ''
          emit('files', field, carried, entry)
        },
      }
    : undefined

async function press(row: number, column: number) {
  if (editing.value?.entry === rows.value[row]!.id && editing.value.field === columns.value[column]!.id) return
  if (!(await finish())) return
  await stand(row, column)
}

/** A row that was just made is written in at once. */
async function begin(id: string) {
  sorting.value = undefined
  await nextTick()
  const row = rows.value.findIndex(item => item.id === id)
  if (row < 0) return
  await stand(row, 0)
  edit()
}
defineExpose({ begin, focus: () => stand(at.row, at.column) })
</script>

<template>
  <div
    ref="scroller"
    class="entry-table"
    role="grid"
    :aria-label="`All of the catalogue, a row for each ${one}`"
    :aria-rowcount="rows.length + 1"
    :style="{ '--cols': template, '--least': `${least}px` }"
    @keydown="onKey"
    @paste="paste"
    @copy="copy"
  >
    <div class="row head" role="row" aria-rowindex="1">
      <span role="columnheader" class="tick"
        ><VCheckboxBtn
          :model-value="allChosen"
          :indeterminate="!allChosen && chosen.size > 0"
          aria-label="Choose all"
          @update:model-value="toggleAll"
      /></span>
      <span
        v-for="field in columns"
        :key="field.id"
        v-drop="dropOn(field)"
        role="columnheader"
        class="cell name"
        :class="{ held: held === `${field.id} `, number: isNumeric(field.kind), first: field.id === TITLE }"
        :aria-sort="sorting?.field === field.id ? (sorting.down ? 'descending' : 'ascending') : 'none'"
      >
        <VBtn
          color="soft"
          :title="isFileKind(field.kind) ? `Drop files here: each finds its ${one} by its name` : undefined"
          @click="sortBy(field.id)"
        >
          {{ field.name }}<span v-if="field.unit" class="unit">&nbsp;{{ field.unit }}</span
          ><span v-if="field.kind === 'money'" class="unit">&nbsp;{{ field.currency }}</span>
          <VIcon v-if="sorting?.field === field.id" :icon="sorting.down ? mdiArrowDown : mdiArrowUp" size="14" />
        </VBtn>
      </span>
      <span role="columnheader" class="cell state">State</span>
    </div>
    <div class="rows" role="rowgroup" :style="{ height: `${virtualizer.getTotalSize()}px` }">
      <EntryRow
        v-for="line in lines"
        :key="line.row.id"
        v-model:text="text"
        :row="line.row"
        :index="line.index"
        :columns="columns"
        :is-current="line.row.id === current"
        :is-chosen="chosen.has(line.row.id)"
        :tab-stop="line.index === at.row ? at.column : -1"
        :edited="editing?.entry === line.row.id ? editing : undefined"
        :held="held.endsWith(` ${line.row.id}`) ? held : ''"
        :drop-on="dropOn"
        :style="{ transform: `translateY(${line.start}px)` }"
        @toggle="toggle(line.row.id)"
        @press="column => press(line.index, column)"
        @edit="edit()"
        @stand="current = line.row.id"
        @take="take"
        @leave="finish"
      />
    </div>
  </div>
</template>

<style scoped>
.entry-table {
  position: relative;
  flex: 1;
  min-height: 0;
  overflow: auto;
  background: #fff;
}
.rows {
  position: relative;
  min-width: 100%;
}
.entry-table :deep(.row) {
  display: grid;
  grid-template-columns: var(--cols);
  width: max(100%, var(--least));
  height: 33px;
  background: #fff;
  border-bottom: 1px solid #e3e9e7;
}
.rows > :deep(.row) {
  position: absolute;
  top: 0;
  left: 0;
}
.entry-table :deep(.row.current) {
  background: #edf3f2;
}
.entry-table .head {
  position: sticky;
  z-index: 3;
  top: 0;
  background: #eef2f1;
  border-bottom: 1px solid var(--line);
}
.entry-table :deep(.tick) {
  position: sticky;
  left: 0;
  z-index: 1;
  display: grid;
  place-items: center;
  background: inherit;
  --v-input-control-height: 30px;
}
.entry-table :deep(.cell) {
  position: relative;
  padding: 0 8px;
  line-height: 32px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  border-left: 1px solid #eef2f1;
}
.entry-table :deep(.cell:focus-visible),
.entry-table :deep(.cell[tabindex='0']:focus) {
  outline: 2px solid var(--water);
  outline-offset: -2px;
}
.entry-table :deep(.cell.edited) {
  overflow: visible;
  padding: 0;
  z-index: 2;
}
.entry-table :deep(.cell.first) {
  position: sticky;
  left: 34px;
  z-index: 1;
  background: inherit;
  border-right: 1px solid var(--line);
}
.entry-table :deep(.cell.first.edited) {
  z-index: 4;
}
.entry-table :deep(.number) {
  text-align: right;
  font-variant-numeric: tabular-nums;
}
.entry-table :deep(.lacks) {
  background: repeating-linear-gradient(135deg, #f7ece6 0 6px, #fff 6px 12px);
}
.entry-table :deep(.held) {
  outline: 2px solid var(--water);
  outline-offset: -2px;
  background: #e2efee;
}
.entry-table :deep(.state) {
  color: var(--soft);
  font-size: 12.5px;
}
.entry-table :deep(.state.waits) {
  color: #9a4420;
  font-weight: 600;
}
.entry-table .head .name {
  padding: 0;
}
.head .name :deep(.v-btn) {
  justify-content: flex-start;
  width: 100%;
  height: 32px;
  padding: 0 8px;
  font-weight: 600;
}
.head .number :deep(.v-btn) {
  justify-content: flex-end;
}
.unit {
  color: var(--soft);
  font-weight: 400;
}
.entry-table .head .state {
  font-weight: 600;
}
</style>
