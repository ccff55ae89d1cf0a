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
      <table
        v-for="{ head, rows } in [
          { head: 'Kind', rows: kinds },
          { head: 'Folder, with what is below', rows: topFolders },
        ]"
        :key="head"
      >
        <thead>
          <tr>
            <th scope="col">{{ head }}</th>
            <th scope="col" class="num">Files</th>
            <th scope="col" class="num">Size</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.name">
            <th scope="row">
              <NuxtLink :to="row.to">{{ row.name }}</NuxtLink><i class="bar" :style="{ width: `${share(row.bytes, rows)}%` }" />
            </th>
            <td class="num">{{ row.files.toLocaleString() }}</td>
            <td class="num mono" :title="formatExactSize(row.bytes)">{{ formatSize(row.bytes) }}</td>
          </tr>
          <tr v-if="!rows.length">
            <td colspan="3">Nothing is stored yet.</td>
          </tr>
        </tbody>
      </table>
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
  grid-template-columns: repeat(auto-fit, minmax(min(280px, 100%), 1fr));
  gap: 12px 24px;
  align-items: start;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  padding: 4px 0 4px 12px;
  text-align: left;
  font-weight: 400;
  border-bottom: 1px solid var(--line);
  vertical-align: top;
}
th:first-child {
  padding-left: 0;
}
thead th {
  color: var(--soft);
  font-size: 12.5px;
}
.num {
  text-align: right;
  white-space: nowrap;
}
tbody th a {
  color: var(--ink);
  text-decoration: none;
  overflow-wrap: anywhere;
}
tbody th a:hover {
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
