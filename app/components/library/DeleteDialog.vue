<script setup lang="ts">
import type { BundleUse } from '~~/core/bundle/retarget'
import type { DeleteFile, Use } from '~~/core/files/fileItem'
import type { Selection } from '~~/core/files/selection'

/** Deletes files and folders; where files are in use, shows the places and three ways on. */
const props = defineProps<{ things: Selection; /** the title of a single file or folder */ title?: string }>()
const emit = defineEmits<{ close: []; done: [] }>()

const rights = useRights()
const selection = useSelection()
const uses = ref<Use[]>()
const bundles = ref<BundleUse[]>([])
const replacing = ref(false)
const problem = ref('')
const several = computed(() => props.things.files.length + props.things.folders.length > 1 || props.things.folders.length > 0)
const heading = computed(() => {
  const count = (uses.value?.length ?? 0) + bundles.value.length
  return `${counted(count, 'place')} ${bundles.value.length ? (count === 1 ? 'holds' : 'use') : count === 1 ? 'leads to' : 'lead to'} ${named.value}`
})
const named = computed(() => (props.title ? `“${props.title}”` : wordsForSelection(props.things)))

async function remove(way: DeleteFile = {}) {
  problem.value = ''
  try {
    const one = props.title && props.things.files.length + props.things.folders.length === 1
    await selection.remove(props.things, one ? `"${props.title}" is` : `${wordsForSelection(props.things)} are`, way)
    emit('done')
  } catch (error) {
    if (error instanceof ApiProblem && Array.isArray(error.extra.uses)) {
      uses.value = error.extra.uses as Use[]
      bundles.value = error.extra.bundles as BundleUse[]
    } else problem.value = wordsOf(error)
  }
}
onMounted(() => remove())
</script>

<template>
  <VDialog :model-value="!!uses || !!problem" aria-labelledby="delete-head" @update:model-value="emit('close')">
    <div class="dialog">
      <h2 id="delete-head">{{ problem ? 'That did not work' : heading }}</h2>
      <p v-if="problem" class="problem">{{ problem }}</p>
      <ul v-if="uses" class="places">
        <li v-for="use in uses" :key="`${use.placement} ${use.fileId ?? use.folderId}`">
          <b>{{ use.pageTitle }}</b> {{ wordsForUse(use) }}<span v-if="use.live">, live</span>
        </li>
        <li v-for="use in bundles" :key="`${use.bundleId} ${use.fileId ?? use.folderId}`">
          <b>{{ use.bundleTitle }}</b> bundle
        </li>
      </ul>
      <p v-if="uses && !rights.may('publish')" class="hint">
        What visitors find would change. Ask somebody who may put pages live to delete it, or to put another file in its place.
      </p>
      <div v-else-if="uses" class="ways">
        <VBtn v-focus class="way" @click="replacing = !replacing">
          <b>Put another file in {{ several ? 'their' : 'its' }} place</b
          ><span>Every button and link follows, live pages too{{ bundles.length ? '; bundles hold it instead' : '' }}.</span>
        </VBtn>
        <FileFinder
          v-if="replacing"
          label="Find the file that takes its place"
          :except="things.files"
          @choose="remove({ replaceBy: $event.id })"
          @close="replacing = false"
        />
        <VBtn class="way" @click="remove({ takeOff: true })">
          <b>Take it off those places</b
          ><span
            >Buttons go, links become plain words. Live pages change at once{{ bundles.length ? '; bundles go on without' : '' }}.</span
          >
        </VBtn>
        <VBtn color="clay" class="way" @click="remove({ despite: true })">
          <b>Delete all the same</b
          ><span
            >The places stay in the drafts, marked; visitors no longer see them{{ bundles.length ? '; bundles leave it out' : '' }}.</span
          >
        </VBtn>
      </div>
      <VBtn @click="emit('close')">Keep {{ several ? 'them' : 'the file' }}</VBtn>
    </div>
  </VDialog>
</template>

<style scoped>
.places {
  margin: 0;
  padding: 0 0 0 18px;
  max-height: 180px;
  overflow: auto;
  line-height: 1.6;
}
</style>
