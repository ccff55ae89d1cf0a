<script setup lang="ts">
/** The page was saved elsewhere meanwhile: which of the two goes on. */
defineEmits<{ load: []; keep: [] }>()
</script>

<template>
  <div class="two-versions" role="alert">
    <p>This page was changed in another tab or by someone else. Your version is still here, and not saved.</p>
    <VBtn @click="$emit('load')">Load the other version</VBtn>
    <VBtn @click="$emit('keep')">Keep mine instead</VBtn>
  </div>
</template>

<style scoped>
.two-versions {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
  padding: 8px 12px;
  background: #f6e3d8;
  border-bottom: 1px solid #d9a68b;
}
</style>
