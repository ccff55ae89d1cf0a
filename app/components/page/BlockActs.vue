<script setup lang="ts">
/** What can be done with a block as a whole. */
const emit = defineEmits<{ duplicate: []; move: [direction: -1 | 1]; remove: [] }>()
</script>

<template>
  <div class="acts">
    <VBtn @click="emit('duplicate')">Duplicate</VBtn>
    <VBtn aria-label="Move up" @click="emit('move', -1)">Up</VBtn>
    <VBtn aria-label="Move down" @click="emit('move', 1)">Down</VBtn>
    <VBtn @click="emit('remove')">Remove</VBtn>
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
