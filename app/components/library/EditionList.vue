<script setup lang="ts">
import type { FileDetails } from '~~/core/files/fileDetails'

/** The sets of bytes a file has had, and which one visitors get. */
const props = defineProps<{ file: FileDetails }>()
const rights = useRights()
const editions = useEditions()
const renews = computed(() => rights.mayFile('renew', props.file))
const HEADERS = [
  { title: 'Edition', key: 'number', width: 34 },
  { title: 'Came in', key: 'created' },
  { title: 'State', key: 'state', width: 108 },
] as const
const NEWEST_FIRST = [{ key: 'number', order: 'desc' }] as const

async function bring() {
  const [file] = await chooseFiles({ multiple: false })
  if (file) editions.bring(props.file, { file, path: file.name })
}
</script>

<template>
  <section aria-labelledby="editions-head">
    <h2 id="editions-head">{{ counted(file.editions.length, 'edition') }}</h2>
    <VDataTable
      :headers="HEADERS"
      :items="file.editions"
      item-value="number"
      :sort-by="NEWEST_FIRST"
      hide-default-header
      class="editions"
      aria-labelledby="editions-head"
    >
      <template #item="{ item }"><EditionRow :key="item.number" :file="file" :edition="item" /></template>
    </VDataTable>
    <VBtn v-if="!file.deleted && renews" variant="outlined" class="next" @click="bring">Next edition…</VBtn>
    <p v-if="renews" class="hint">
      Or drop it here, on the file in the library, or on a button that leads to it. You see both side by side before it goes live.
    </p>
  </section>
</template>

<style scoped>
.editions {
  background: none;
}
.editions :deep(table) {
  table-layout: fixed;
}
.next {
  margin: 8px 0 4px;
}
</style>
