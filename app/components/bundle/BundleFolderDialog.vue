<script setup lang="ts">
/** Chooses a folder that goes into a bundle with all that it will ever hold. */
const emit = defineEmits<{ choose: [folder: string], close: [] }>()
const place = ref<string | null>(useListing().folder)
</script>

<template>
  <VDialog :model-value="true" max-width="460" aria-labelledby="bundle-folder-head" @update:model-value="emit('close')">
    <div class="dialog">
      <h2 id="bundle-folder-head">Which folder, always?</h2>
      <p class="hint">What is put into it later is in the bundle at once; what is taken out is not.</p>
      <FolderChooser v-model="place" label="Find a folder" @take="place !== null && emit('choose', place)" />
      <div class="acts">
        <button type="button" class="main" :disabled="place === null" @click="emit('choose', place!)">Put it in</button>
        <button type="button" class="plain" @click="emit('close')">Cancel</button>
        <span v-if="place === null" class="hint">The whole library is no folder: choose one below it.</span>
      </div>
    </div>
  </VDialog>
</template>
