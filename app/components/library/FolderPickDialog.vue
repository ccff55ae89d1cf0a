<script setup lang="ts">
/** Chooses a folder below the top of the library. */
defineProps<{ question: string; hint: string; act: string }>()
const emit = defineEmits<{ choose: [folder: string]; close: [] }>()
const place = ref<string | null>(useListing().folder)
</script>

<template>
  <VDialog :model-value="true" max-width="460" aria-labelledby="folder-pick-head" @update:model-value="emit('close')">
    <div class="dialog">
      <h2 id="folder-pick-head">{{ question }}</h2>
      <p class="hint">{{ hint }}</p>
      <FolderChooser v-model="place" label="Find a folder" @take="place !== null && emit('choose', place)" />
      <div class="acts">
        <VBtn variant="flat" :disabled="place === null" @click="emit('choose', place!)">{{ act }}</VBtn>
        <VBtn @click="emit('close')">Cancel</VBtn>
        <span v-if="place === null" class="hint">The whole library is no folder: choose one below it.</span>
      </div>
    </div>
  </VDialog>
</template>
