<script setup lang="ts">
import type { FileItem } from '~~/core/files/item'
import type { FileDetails } from '~/stores/library'

/** Before another file takes the place of one everywhere: which, and where. */
const props = defineProps<{ file: FileDetails }>()
const emit = defineEmits<{ close: [] }>()
const library = useLibrary()
const { problem, attempt } = useAttempt()
const other = shallowRef<FileItem>()
const count = computed(() => props.file.usedIn.length + props.file.bundles.length)
/** Labels that were written stay as they are. */
const replace = (by: FileItem) => attempt(async () => {
  await library.replace(props.file, by)
  emit('close')
})
</script>

<template>
  <VDialog :model-value="true" max-width="600" aria-labelledby="replace-head" @update:model-value="emit('close')">
    <div class="dialog">
      <h2 id="replace-head">Another file in the place of “{{ file.title }}”</h2>
      <p class="hint">For its next edition, choose “Next edition…” instead: then its address stays, too.</p>
      <FileFinder v-if="!other" label="Find the file that takes its place" :except="[file.id]" @choose="other = $event" @close="emit('close')" />
      <p v-else class="chosen"><TypeTag :tag="other.tag" :family="other.family" /> <b>{{ other.title }}</b> <button type="button" class="plain" @click="other = undefined">Another one…</button></p>
      <section class="what">
        <h3>{{ counted(count, 'place') }} will have it</h3>
        <div class="list">
          <PlaceList :uses="file.usedIn" />
          <p v-for="bundle in file.bundles" :key="bundle.id"><NuxtLink :to="`/desk/files/${bundle.id}`">{{ bundle.title }}</NuxtLink> bundle</p>
        </div>
      </section>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="acts">
        <button v-if="other" v-focus type="button" class="main" @click="replace(other)">Put it in all {{ counted(count, 'place') }}</button>
        <button type="button" class="plain" @click="emit('close')">Leave it as it is</button>
      </div>
    </div>
  </VDialog>
</template>

<style scoped>
.what { width: 100%; }
.list { max-height: 200px; overflow: auto; }
.chosen { display: flex; gap: 8px; align-items: center; }
h3 { margin: 0 0 2px; font-size: 13px; font-weight: 650; }
</style>
