<script setup lang="ts">
import { formatSize } from '~~/core/files/size'
import type { FileDetails } from '~/stores/library'

/** The sets of bytes a file has had, and which one visitors get. */
const props = defineProps<{ file: FileDetails }>()
const library = useLibrary()
const selection = useSelection()
const notices = useNotices()
const nextEdition = useEditions()

async function bring() {
  const [file] = await chooseFiles({ multiple: false })
  if (file) nextEdition.bring(props.file, { file, path: file.name })
}

async function show(number: number) {
  const before = props.file.edition
  await selection.attempt(async () => {
    await library.showEdition(props.file.id, number)
    notices.say(`Visitors get edition ${number} now, from every button.`, { tone: 'works', action: { label: 'Undo', run: () => library.showEdition(props.file.id, before) } })
  })
}
</script>

<template>
  <section aria-labelledby="editions-head">
    <h2 id="editions-head">{{ counted(file.editions.length, 'edition') }}</h2>
    <ol>
      <li v-for="edition in file.editions.toReversed()" :key="edition.number" :class="{ current: edition.number === file.edition }">
        <b>{{ edition.number }}</b>
        <span class="words"><span :title="longDate(edition.created)">{{ shortDate(edition.created) }}</span><code :title="edition.fileName">{{ edition.fileName }}, {{ formatSize(edition.size) }}</code></span>
        <span v-if="edition.number === file.edition" class="now">current</span>
        <button v-else-if="edition.number > file.edition" type="button" class="plain strong" :aria-label="`Compare edition ${edition.number} with what visitors get`" @click="nextEdition.look(file, edition.number)">Compare…</button>
        <button v-else type="button" class="plain" :aria-label="`Show edition ${edition.number} to visitors`" @click="show(edition.number)">Show this one</button>
      </li>
    </ol>
    <button v-if="!file.deleted" type="button" class="plain strong next" @click="bring">Next edition…</button>
    <p class="hint">Or drop it here, or on the file in the library. You see both side by side before it goes live.</p>
  </section>
</template>

<style scoped>
ol { list-style: none; margin: 0; padding: 0; }
li { display: grid; grid-template-columns: 20px minmax(0, 1fr) auto; align-items: center; gap: 6px; padding: 5px 0; border-bottom: 1px solid var(--line); }
.words { display: grid; }
code { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; color: var(--soft); font-size: 11.5px; }
.next { margin: 8px 0 4px; }
.now { padding: 0 8px; color: var(--moss); font-weight: 600; }
</style>
