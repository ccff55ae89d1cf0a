<script setup lang="ts">
import { formatExactSize, formatSize } from '~~/core/files/size'
import type { StorageUse } from '~~/core/trust/trustReports'
import { FAMILY_WORDS } from '~/library/filterWords'

/** Where the space goes, by kind and by folder. */
const props = defineProps<{ use: StorageUse }>()
const folders = useFolders()
const MOST_FOLDERS = 12

const kinds = computed(() =>
  props.use.kinds.map(({ family, files, bytes }) => ({
    name: FAMILY_WORDS[family],
    files,
    bytes,
    to: `/desk?folder=top&below=yes&type=${family}`,
  })),
)
const topFolders = computed(() =>
  props.use.folders
    .map(({ folder, files, bytes }) => ({
      name: folder === null ? 'Top of the library' : [...folders.tree.pathTo(folder).map(({ name }) => name)].join(' › '),
      files,
      bytes,
      to: `/desk?folder=${folder ?? 'top'}`,
    }))
    .slice(0, MOST_FOLDERS),
)
const share = (bytes: number, rows: { bytes: number }[]) => (100 * bytes) / Math.max(1, ...rows.map(row => row.bytes))
const saved = computed(() => props.use.unshared - props.use.stored)
</script>

<template>
  <section class="storage" aria-labelledby="storage-head">
    <h2 id="storage-head">Storage</h2>
    <p>
      <b :title="formatExactSize(use.stored)">{{ formatSize(use.stored) }}</b> on the disk,
      <b :title="formatExactSize(use.free)">{{ formatSize(use.free) }}</b> free.<template v-if="saved > 0">
        Files with the same bytes share them: that saves {{ formatSize(saved) }}.</template
      >
    </p>
    <div class="tables">
      <VDataTable
        v-for="{ head, rows } in [
          { head: 'Kind', rows: kinds },
          { head: 'Folder, with what is below', rows: topFolders },
        ]"
        :key="head"
        :headers="[
          { title: head, key: 'name' },
          { title: 'Files', key: 'files', align: 'end' },
          { title: 'Size', key: 'bytes', align: 'end' },
        ]"
        :items="rows"
        item-value="to"
        no-data-text="Nothing is stored yet."
      >
        <template #[`item.name`]="{ item }">
          <NuxtLink :to="item.to">{{ item.name }}</NuxtLink><i class="bar" :style="{ width: `${share(item.bytes, rows)}%` }" />
        </template>
        <template #[`item.files`]="{ item }">{{ item.files.toLocaleString() }}</template>
        <template #[`item.bytes`]="{ item }">
          <span class="mono" :title="formatExactSize(item.bytes)">{{ formatSize(item.bytes) }}</span>
        </template>
      </VDataTable>
    </div>
    <p class="hint">
      {{ counted(use.otherEditions.count, 'other edition') }} {{ use.otherEditions.count === 1 ? 'takes' : 'take' }}
      {{ formatSize(use.otherEditions.bytes) }}; {{ counted(use.bin.files, 'file') }} in the bin
      {{ use.bin.files === 1 ? 'takes' : 'take' }} {{ formatSize(use.bin.bytes) }}. Bundles take nothing: they are put together as they are
      sent.
    </p>
  </section>
</template>

<style scoped>
.storage {
  display: grid;
  gap: 10px;
}
.tables {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(340px, 100%), 1fr));
  gap: 12px 24px;
  align-items: start;
}
.tables a {
  color: var(--ink);
  text-decoration: none;
  overflow-wrap: anywhere;
  white-space: normal;
}
.tables a:hover {
  text-decoration: underline;
}
.bar {
  display: block;
  height: 4px;
  margin-top: 3px;
  min-width: 2px;
  background: #5e9c97;
  border-radius: 1px;
}
</style>
