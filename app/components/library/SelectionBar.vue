<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { LINK_FORMATS, type LinkFormat } from '~~/core/files/links'

/** What can be done with the files and folders that are chosen. */
const emit = defineEmits<{ bundle: []; move: []; describe: []; remove: []; forGood: [] }>()
const selection = useSelection()
const listing = useListing()
const placer = usePlacer()
const FORMAT_WORDS: Record<LinkFormat, string> = { plain: 'Plain addresses', html: 'HTML list', markdown: 'Markdown', csv: 'CSV' }
const anyFiles = computed(() => selection.files.size > 0)
</script>

<template>
  <div v-if="selection.count" class="selection-bar" role="toolbar" aria-label="With what is chosen">
    <b aria-live="polite">{{ selection.words }}</b>
    <template v-if="listing.bin">
      <button type="button" class="plain" @click="selection.attempt(() => selection.restore(selection.chosen))">Restore</button>
      <VBtn v-if="anyFiles" variant="text" color="error" @click="emit('forGood')">Delete for good…</VBtn>
    </template>
    <template v-else>
      <button type="button" class="plain" title="Move, or copy (M)" @click="emit('move')">Move to…</button>
      <button v-if="anyFiles" type="button" class="plain" @click="emit('describe')">Describe…</button>
      <VMenu v-if="anyFiles" location="top">
        <template #activator="{ props: activator }"><button type="button" class="plain" v-bind="activator">Copy links</button></template>
        <div class="pop">
          <button v-for="format in LINK_FORMATS" :key="format" type="button" @click="selection.copyLinks(selection.chosen, format)">
            {{ FORMAT_WORDS[format] }}
          </button>
        </div>
      </VMenu>
      <button
        v-if="anyFiles && placer.current"
        type="button"
        class="plain"
        title="Place on the page (P)"
        @click="selection.attempt(() => selection.placeAll(selection.chosen))"
      >
        Place
      </button>
      <button
        v-if="anyFiles"
        type="button"
        class="plain"
        title="Into the trough (T)"
        @click="selection.attempt(() => selection.pickUp(selection.chosen))"
      >
        Pick up
      </button>
      <button type="button" class="plain" title="A zip for visitors with an address of its own, always current" @click="emit('bundle')">
        Bundle…
      </button>
      <button
        type="button"
        class="plain"
        title="Download it once, for yourself"
        @click="selection.attempt(() => selection.downloadZip(selection.chosen))"
      >
        As a zip
      </button>
      <button type="button" class="plain clay" title="Into the bin (Delete)" @click="emit('remove')">Delete</button>
    </template>
    <button type="button" class="plain quiet" title="Choose nothing (Esc)" aria-label="Choose nothing" @click="selection.clear()">
      <VIcon :icon="mdiClose" size="16" />
    </button>
  </div>
</template>

<style scoped>
.selection-bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 4px;
  padding: 4px 10px;
  background: #d9e8e6;
  border-top: 1px solid var(--water);
}
b {
  margin-right: 6px;
  white-space: nowrap;
}
.plain {
  padding: 0 6px;
}
.quiet {
  margin-left: auto;
}
</style>
