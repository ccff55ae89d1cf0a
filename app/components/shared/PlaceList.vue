<script setup lang="ts">
import type { Use } from '~~/core/files/fileItem'

/** Places that lean on something, each leading to itself. */
defineProps<{ uses: Use[] }>()
</script>

<template>
  <ul class="places">
    <li v-for="use in uses" :key="`${use.pageId} ${use.placement} ${use.fileId}`">
      <NuxtLink :to="placeOfUse(use)">{{ use.pageTitle }}</NuxtLink>
      <span>{{ wordsForUse(use) }}</span>
      <span class="side">{{ use.live ? (use.draft ? 'live' : 'live, not in the draft') : 'in the draft' }}</span>
    </li>
  </ul>
</template>

<style scoped>
.places {
  list-style: none;
  margin: 0;
  padding: 0;
  width: 100%;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  padding: 5px 0;
  border-bottom: 1px solid var(--line);
}
.side {
  margin-left: auto;
  color: var(--soft);
}
</style>
