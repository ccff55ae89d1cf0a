<script setup lang="ts">
/** Moves or copies what is chosen into a folder. */
const emit = defineEmits<{ close: [] }>()
const selection = useSelection()
const listing = useListing()
const place = ref<string | null>(listing.folder)
const problem = ref('')
const { words } = selection

async function go(way: 'move' | 'copy') {
  problem.value = ''
  try {
    await selection[way](selection.chosen, place.value)
    emit('close')
  } catch (error) {
    problem.value = wordsOf(error)
  }
}
</script>

<template>
  <VDialog :model-value="true" aria-labelledby="move-head" @update:model-value="emit('close')">
    <div class="dialog">
      <h2 id="move-head">Where should {{ words }} go?</h2>
      <FolderChooser v-model="place" label="Find a folder" :except="selection.chosen.folders" @take="go('move')" />
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="acts">
        <button type="button" class="main" @click="go('move')">Move there</button>
        <button type="button" class="plain strong" title="The bytes are shared: a copy takes no room" @click="go('copy')">
          Copy there
        </button>
        <button type="button" class="plain" @click="emit('close')">Cancel</button>
      </div>
    </div>
  </VDialog>
</template>
