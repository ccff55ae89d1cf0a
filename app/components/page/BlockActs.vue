<script setup lang="ts">
/** What can be done with a block as a whole. */
const emit = defineEmits<{ duplicate: []; move: [direction: -1 | 1]; remove: [] }>()
</script>

<template>
  <div class="acts">
    <button type="button" class="plain" @click="emit('duplicate')">Duplicate</button>
    <button type="button" class="plain" aria-label="Move up" @click="emit('move', -1)">Up</button>
    <button type="button" class="plain" aria-label="Move down" @click="emit('move', 1)">Down</button>
    <button type="button" class="plain" @click="emit('remove')">Remove</button>
  </div>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
</style>
