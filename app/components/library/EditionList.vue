<script setup lang="ts">
import type { FileDetails } from '~/stores/library'

/** The sets of bytes a file has had, and which one visitors get. */
const props = defineProps<{ file: FileDetails }>()
const editions = useEditions()

async function bring() {
  const [file] = await chooseFiles({ multiple: false })
  if (file) editions.bring(props.file, { file, path: file.name })
}
</script>

<template>
  <section aria-labelledby="editions-head">
    <h2 id="editions-head">{{ counted(file.editions.length, 'edition') }}</h2>
    <ol>
      <EditionRow v-for="edition in file.editions.toReversed()" :key="edition.number" :file="file" :edition="edition" />
    </ol>
    <VBtn v-if="!file.deleted" variant="outlined" class="next" @click="bring">Next edition…</VBtn>
    <p class="hint">
      Or drop it here, on the file in the library, or on a button that leads to it. You see both side by side before it goes live.
    </p>
  </section>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
.next {
  margin: 8px 0 4px;
}
</style>
