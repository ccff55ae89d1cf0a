<script setup lang="ts">
import { contentsSchema, type Contents } from '~~/core/files/fileContents'
import type { FileItem } from '~~/core/files/fileItem'
import { formatSize } from '~~/core/files/size'

/** Text, tables, documents and the list of what is in a zip. */
const props = defineProps<{ file: FileItem }>()
const contents = ref<Contents>()
const failure = ref('')
const sheet = ref(0)

watch(
  () => props.file.sha256,
  async () => {
    failure.value = ''
    contents.value = undefined
    try {
      contents.value = await ask(contentsSchema, `/files/${props.file.id}/contents`)
      sheet.value = 0
    } catch (error) {
      failure.value = wordsOf(error)
    }
  },
  { immediate: true },
)

const ENTRY_HEADERS = [
  { title: 'In the zip', key: 'name' },
  { title: 'Size', key: 'size', align: 'end' },
] as const
const shown = computed(() => (contents.value?.kind === 'sheets' ? contents.value.sheets[sheet.value] : undefined))
const widest = computed(() => Math.max(0, ...(shown.value?.rows.map(row => row.length) ?? [])))
const letter = (column: number): string =>
  (column >= 26 ? letter(Math.floor(column / 26) - 1) : '') + String.fromCharCode(65 + (column % 26))
const isNumber = (cell: string) => /^-?[\d.,]+ ?%?$/.test(cell)

/** A page of its own, where no script runs and nothing is fetched. */
const page = computed(() =>
  contents.value?.kind === 'document'
    ? `<!DOCTYPE html><html lang="en"><head><meta http-equiv="Content-Security-Policy" content="default-src 'none'; img-src data:; style-src 'unsafe-inline'"><style>
      body { font: 15px/1.55 system-ui, sans-serif; color: #17211F; margin: 28px auto; padding: 0 28px; max-width: 640px; overflow-wrap: anywhere }
      table { border-collapse: collapse; width: 100% } td, th { border: 1px solid #CBD4D2; padding: 5px 8px; vertical-align: top } img { max-width: 100% } h1 { font-size: 22px }
    </style></head><body>${contents.value.html}</body></html>`
    : '',
)
</script>

<template>
  <div class="contents">
    <p v-if="failure" class="failure">{{ failure }}</p>
    <p v-else-if="!contents" class="waiting">Opening it…</p>
    <pre v-else-if="contents.kind === 'text'" tabindex="0" :aria-label="`Text of ${file.title}`">{{ contents.text }}<i v-if="contents.cut">

… it goes on.</i></pre>
    <div v-else-if="contents.kind === 'parts'" class="parts" tabindex="0" role="group" :aria-label="`Words of ${file.title}`">
      <p class="hint">Its words; how they are laid out shows in its own program.</p>
      <template v-for="(part, index) in contents.parts" :key="index">
        <h3 v-if="part.name">{{ part.name }}</h3>
        <p class="words">{{ part.text }}</p>
      </template>
      <p v-if="contents.cut" class="hint">And more.</p>
    </div>
    <iframe v-else-if="contents.kind === 'document'" sandbox="" :srcdoc="page" :title="`Text of ${file.title}`" />
    <template v-else-if="contents.kind === 'sheets'">
      <VTabs v-if="contents.sheets.length > 1" v-model="sheet">
        <VTab v-for="(one, index) in contents.sheets" :key="index" :value="index">{{ one.name }}</VTab>
      </VTabs>
      <p v-if="!shown?.rows.length" class="waiting">This sheet is empty.</p>
      <div v-else class="table" tabindex="0" role="group" :aria-label="`Table of ${file.title}`">
        <VTable fixed-header class="cells">
          <thead>
            <tr>
              <td />
              <th v-for="column in widest" :key="column" scope="col">{{ letter(column - 1) }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(row, index) in shown.rows" :key="index">
              <th scope="row">{{ index + 1 }}</th>
              <td v-for="column in widest" :key="column" :class="{ num: isNumber(row[column - 1] ?? '') }">{{ row[column - 1] }}</td>
            </tr>
          </tbody>
        </VTable>
      </div>
      <p v-if="shown?.cut" class="hint">The first {{ shown.rows.length }} rows. Download it to see all.</p>
    </template>
    <template v-else>
      <div class="table" tabindex="0" role="group" :aria-label="`What is in ${file.title}`">
        <VDataTable :headers="ENTRY_HEADERS" :items="contents.entries" item-value="name" fixed-header class="entries">
          <template #[`item.name`]="{ item }">
            <code>{{ item.name || file.title }}</code><span v-if="item.locked" class="locked">locked</span>
          </template>
          <template #[`item.size`]="{ item }">{{ item.size === undefined ? '' : formatSize(item.size) }}</template>
        </VDataTable>
      </div>
      <p v-if="contents.cut" class="hint">And more.</p>
    </template>
  </div>
</template>

<style scoped>
.parts {
  max-height: 70vh;
  overflow: auto;
  padding: 4px 18px 18px;
  background: #fff;
  border: 1px solid var(--line);
}
.parts h3 {
  margin: 18px 0 4px;
  font-size: 14px;
}
.words {
  white-space: pre-line;
  overflow-wrap: anywhere;
  line-height: 1.5;
}
.contents {
  display: grid;
  gap: 4px;
  min-width: 0;
}
pre,
.table,
iframe {
  margin: 0;
  height: max(260px, calc(100dvh - 240px));
  overflow: auto;
  background: #fff;
  border: 1px solid #a9b7b3;
  border-radius: 4px;
  box-sizing: border-box;
}
pre {
  padding: 14px;
  font:
    12.5px/1.5 'IBM Plex Mono',
    monospace;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  user-select: text;
}
iframe {
  width: 100%;
}
.table {
  height: auto;
  max-height: max(260px, calc(100dvh - 240px));
}
/* What lies around it scrolls. */
.table :deep(:is(.v-table, .v-table__wrapper)) {
  overflow: visible;
}
.entries :deep(td:first-child) {
  white-space: normal !important;
  overflow-wrap: anywhere;
}
.cells :deep(:is(th, td)) {
  height: auto !important;
  padding: 3px 9px !important;
  border-right: 1px solid #dee5e3;
  border-bottom: 1px solid #dee5e3;
  white-space: nowrap;
  max-width: 320px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.cells :deep(thead :is(th, td)) {
  text-align: center !important;
}
.cells :deep(tbody th) {
  position: sticky;
  left: 0;
  text-align: right;
  background: #edf1f0;
  color: var(--soft);
  font-weight: 500;
}
.num {
  text-align: right;
}
.locked {
  margin-left: 10px;
  color: #9a4420;
}
.failure,
.waiting {
  padding: 22px 18px;
  color: var(--soft);
}
.failure {
  background: #f6e3d8;
  border-radius: 4px;
  color: var(--ink);
}
</style>
