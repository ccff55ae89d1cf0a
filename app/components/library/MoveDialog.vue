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
        <VBtn variant="flat" @click="go('move')">Move there</VBtn>
        <VBtn variant="outlined" title="The bytes are shared: a copy takes no room" @click="go('copy')"> Copy there </VBtn>
        <VBtn @click="emit('close')">Cancel</VBtn>
      </div>
    </div>
  </VDialog>
</template>
