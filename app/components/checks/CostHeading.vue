<script setup lang="ts">
import type { Cost } from '~~/core/walk/finding'

/** Above what costs visitors the same. */
defineProps<{ id: string; cost: Cost }>()
</script>

<template>
  <h2 :id="id" :class="cost"><i /><slot /></h2>
</template>

<style scoped>
h2 {
  display: flex;
  align-items: center;
  gap: 8px;
  margin: 6px 0 0;
  padding: 6px 0 2px;
  font-size: 15px;
  border-top: 2px solid var(--ink);
}
i {
  width: 11px;
  height: 11px;
  background: #bfcbc9;
}
.blocked i {
  background: #9a4420;
}
.misled i {
  background: var(--straw);
}
.hard i {
  background: #7e9c98;
}
</style>
