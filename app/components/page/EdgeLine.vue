<script setup lang="ts">
import { menuTitle, type Edge } from '~~/core/page/edges'
import type { PageItem } from '~~/core/page/pageItem'
import { pageIds, referencesIn } from '~~/core/page/targets'

/** What Trough itself puts on an edge of every page: around what the owner places there. */
defineProps<{ edge: Edge }>()
defineEmits<{ order: [pages: PageItem[]] }>()
const page = usePage()
const session = useSession()
const { speech } = storeToRefs(useSpeech())
const pages = usePages()

/** Pages of the menu that were not placed by hand. */
const listed = computed(() => {
  const placed = new Set(pageIds(referencesIn(page.draft!)))
  return pages.items.filter(({ id, inMenu, published }) => inMenu && published && !placed.has(id))
})
</script>

<template>
  <p v-if="edge === 'head' && listed.length" class="edge-line">
    <span
      >After these come by themselves:
      <b v-for="(each, index) in listed" :key="each.id">{{ index ? ' · ' : '' }}{{ menuTitle(each, speech) }}</b></span
    >
    <VBtn @click="$emit('order', listed)">Place them, to set their order</VBtn>
  </p>
  <p v-else-if="edge === 'head'" class="edge-line">Every page of the menu is placed. A new one comes after these by itself.</p>
  <p v-else class="edge-line">
    The site’s name stands below this by itself: <b>{{ session.site.name }}</b>
  </p>
</template>

<style scoped>
/* As large as other words of the desk, on a sheet that is scaled. */
.edge-line {
  max-width: 43rem;
  margin-inline: auto;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 8px;
  padding: 9px 0;
  border-top: 1px solid var(--line);
  color: var(--soft);
  font-size: calc(12.5px / var(--zoom));
  cursor: default;
}
.edge-line b {
  font-weight: 500;
  color: var(--ink);
}
</style>
