<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import type { FileRight } from '~~/core/rights/rights'
import { LINK_FORMATS, type LinkFormat } from '~~/core/files/links'

/** What can be done with the files and folders that are chosen. */
const emit = defineEmits<{ bundle: []; move: []; describe: []; remove: []; forGood: [] }>()
const rights = useRights()
const selection = useSelection()
const listing = useListing()
const library = useLibrary()
const placer = usePlacer()
const FORMAT_WORDS: Record<LinkFormat, string> = { plain: 'Plain addresses', html: 'HTML list', markdown: 'Markdown', csv: 'CSV' }
const anyFiles = computed(() => selection.files.size > 0)
/** whether all that is chosen may be dealt with so; of files that are not known yet the server says it */
const mayAll = (right: FileRight) =>
  [...selection.files].every(id => {
    const file = library.known.get(id)
    return file ? rights.mayFile(right, file) : rights.somewhere(right)
  }) && [...selection.folders].every(id => rights.mayFolder(right, id))
</script>

<template>
  <div v-if="selection.count" class="selection-bar" role="toolbar" aria-label="With what is chosen">
    <b aria-live="polite">{{ selection.words }}</b>
    <template v-if="listing.bin">
      <VBtn v-if="mayAll('delete')" @click="selection.attempt(() => selection.restore(selection.chosen))">Restore</VBtn>
      <VBtn v-if="anyFiles && mayAll('delete')" color="clay" @click="emit('forGood')">Delete for good…</VBtn>
    </template>
    <template v-else>
      <VBtn v-if="mayAll('edit') || rights.somewhere('put')" title="Move, or copy (M)" @click="emit('move')">Move to…</VBtn>
      <VBtn v-if="anyFiles && mayAll('edit')" @click="emit('describe')">Describe…</VBtn>
      <VMenu v-if="anyFiles" location="top">
        <template #activator="{ props: activator }"><VBtn v-bind="activator">Copy links</VBtn></template>
        <MenuList>
          <MenuItem
            v-for="format in LINK_FORMATS"
            :key="format"
            :title="FORMAT_WORDS[format]"
            @click="selection.copyLinks(selection.chosen, format)"
          />
        </MenuList>
      </VMenu>
      <VBtn
        v-if="anyFiles && placer.current"
        title="Place on the page (P)"
        @click="selection.attempt(() => selection.placeAll(selection.chosen))"
      >
        Place
      </VBtn>
      <VBtn v-if="anyFiles" title="Into the trough (T)" @click="selection.attempt(() => selection.pickUp(selection.chosen))">
        Pick up
      </VBtn>
      <VBtn
        v-if="rights.mayIn('put', listing.folder)"
        title="A zip for visitors with an address of its own, always current"
        @click="emit('bundle')"
      >
        Bundle…
      </VBtn>
      <VBtn title="Download it once, for yourself" @click="selection.attempt(() => selection.downloadZip(selection.chosen))">
        As a zip
      </VBtn>
      <VBtn v-if="mayAll('delete')" color="clay" title="Into the bin (Delete)" @click="emit('remove')">Delete</VBtn>
    </template>
    <VBtn color="soft" class="nothing" title="Choose nothing (Esc)" aria-label="Choose nothing" @click="selection.clear()">
      <VIcon :icon="mdiClose" size="16" />
    </VBtn>
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
.v-btn {
  padding: 0 6px;
}
.nothing {
  margin-left: auto;
}
</style>
