<script setup lang="ts">
import type { FileItem } from '~~/core/files/fileItem'
import { formatExactSize, formatSize } from '~~/core/files/size'
import { minutes } from '~/library/fileColumns'

/** What is known about a file, by its kind. */
const props = defineProps<{ file: FileItem }>()
const folders = useFolders()

const facts = computed(() => {
  const { facts: known, ...it } = props.file
  const rows: [name: string, value: string, exact?: string][] = [
    ['File name', it.fileName],
    ['Folder', folders.nameOf(it.folder)],
    ['Type', it.mediaType],
    ['Size', formatSize(it.size), formatExactSize(it.size)],
  ]
  const add = (name: string, value: string | number | undefined) => value !== undefined && rows.push([name, String(value)])
  add(it.family === 'slides' ? 'Slides' : 'Pages', known.pages?.toLocaleString())
  add('Sheets', known.sheets)
  add('Files inside', known.entries?.toLocaleString())
  add('Pixels', known.width === undefined ? undefined : `${known.width.toLocaleString()} × ${known.height!.toLocaleString()}`)
  add('Length', known.seconds === undefined ? undefined : minutes(known.seconds))
  add('Encoding', known.charset)
  add('Own title', known.documentTitle)
  add('Author', known.author)
  add('Own date', known.dated)
  if (it.bundle) rows.push(['Composed', longDate(it.changed)])
  else rows.push(['Edition', `${it.edition}, since ${longDate(it.changed)}`])
  rows.push(['Added', longDate(it.created)], ['Downloads', it.downloads.toLocaleString()])
  if (!it.bundle) rows.push(['SHA-256', it.sha256], ['CRC-32', it.crc32])
  return rows
})
const MONO = new Set(['File name', 'Type', 'SHA-256', 'CRC-32'])
</script>

<template>
  <section aria-labelledby="facts-head">
    <h2 id="facts-head">Known about it</h2>
    <dl>
      <template v-for="[name, value, exact] in facts" :key="name"
        ><dt>{{ name }}</dt>
        <dd :class="{ mono: MONO.has(name) }" :title="exact">
          <DownloadsLink v-if="name === 'Downloads'" dimension="file" :of="file.id" :count="file.downloads" :words="value" />
          <template v-else>{{ value }}</template>
        </dd></template
      >
    </dl>
  </section>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 86px minmax(0, 1fr);
  gap: 5px 8px;
  margin: 0;
}
dt {
  color: var(--soft);
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
  user-select: text;
}
</style>
