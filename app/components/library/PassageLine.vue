<script setup lang="ts">
import type { Passage } from '~~/core/find/passage'

/** A passage of a document with the words that were looked for marked. */
defineProps<{ part: string; passage: Passage }>()
</script>

<template>
  <span class="passage"
    ><span v-if="part" class="part">{{ part }}</span
    ><template v-for="(piece, index) in passage" :key="index"
      ><mark v-if="index % 2">{{ piece }}</mark
      ><template v-else>{{ piece }}</template></template
    ></span
  >
</template>

<style scoped>
.passage {
  color: var(--soft);
  font-size: 12.5px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  min-width: 0;
}
.part {
  margin-right: 7px;
  padding: 0 5px;
  color: var(--ink);
  background: #e3eae8;
  border-radius: 2px;
  font-size: 11.5px;
}
mark {
  color: var(--ink);
  background: #f3dc9b;
  border-radius: 2px;
}
@media (max-width: 799px) {
  .passage {
    white-space: normal;
    display: -webkit-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 2;
  }
}
</style>
