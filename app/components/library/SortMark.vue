<script setup lang="ts">
/** Says by which column, and which way round, a list is sorted. */
const props = defineProps<{ order: string; column: string }>()
const way = computed(() => (props.order === props.column ? 'up' : props.order === `-${props.column}` ? 'down' : undefined))
</script>

<template>
  <span v-if="way" class="sort-mark"
    ><span aria-hidden="true">{{ way === 'up' ? ' ↑' : ' ↓' }}</span
    ><span class="tr-spoken">, sorted {{ way === 'up' ? 'upwards' : 'downwards' }}</span></span
  >
</template>

<style scoped>
.sort-mark {
  color: var(--ink);
  font-weight: 600;
}
</style>
