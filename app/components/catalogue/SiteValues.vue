<script setup lang="ts">
import type { CatalogueItem } from '~~/core/catalogue/catalogue'
import type { EntryItem } from '~~/core/catalogue/entry'

/** What is written once for the whole site: one row, as a form. */
defineProps<{ catalogue: CatalogueItem; entry: EntryItem | undefined }>()
</script>

<template>
  <div class="of-site">
    <p class="hint">
      Opening hours, a phone number, the season: what stands on many pages is written here once. In the words of a page, of the head or of
      the foot, type <kbd>/</kbd> and its name.
    </p>
    <p v-if="catalogue.fields.length === 1"><b>Nothing in it yet.</b> Make the first value.</p>
    <EntryForm v-else-if="entry" :catalogue="catalogue" :entry="entry" />
  </div>
</template>

<style scoped>
.of-site {
  max-width: 560px;
  padding: 14px 16px;
  overflow: auto;
}
.hint {
  margin-bottom: 12px;
}
.of-site :deep(.particulars) {
  display: grid;
  gap: 12px;
}
</style>
