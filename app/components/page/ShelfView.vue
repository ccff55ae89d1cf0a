<script setup lang="ts">
import { NodeViewWrapper, nodeViewProps } from '@tiptap/vue-3'
import { flat, listingOf, mapListing } from '~~/core/page/listing'
import { targetFacts } from '~~/core/page/placeholders'
import { SHELF_LOOK } from '~~/core/page/html'
import { MOST_ON_SHELF, type ShelfAttrs } from '~~/core/page/schema'
import { renderShelf } from '~~/core/page/shelf'

const props = defineProps(nodeViewProps)
const page = usePage()
const session = useSession()

const attrs = computed(() => props.node.attrs as ShelfAttrs)
const { files, total, fault: trouble } = useShelf(computed(() => attrs.value.source))
const mayBeSeen = useLooking()
const uploads = useUploads()
/** its files are still on their way */
const arriving = computed(() => !!uploads.forPlacement(attrs.value.placement))
const fault = computed(() => (arriving.value ? '' : trouble.value))
const folders = useFolders()
const listed = computed(() => {
  const { source } = attrs.value
  if (source?.kind !== 'folder') return flat(files.value)
  return { ...listingOf(source.id, folders.tree, files.value), ...(total.value > files.value.length && { total: total.value }) }
})
const html = computed(() =>
  renderShelf(
    attrs.value,
    mapListing(listed.value, file => targetFacts(file, mayBeSeen(file))),
    () => `tr-look-${SHELF_LOOK}`,
    session.speech,
  ),
)
const count = computed(() => page.downloads[attrs.value.placement] ?? 0)
</script>

<template>
  <NodeViewWrapper class="shelf-view" :class="{ selected, faulty: fault }" :data-placement="attrs.placement">
    <!-- Drawn by the renderer's own function, which escapes what is written in it; nothing in it works here. -->
    <!-- eslint-disable-next-line vue/no-v-html -->
    <div v-if="html" inert v-html="html" />
    <p v-else class="empty" :class="{ arriving }">{{ arriving ? 'Its files are on their way…' : fault }}</p>
    <span v-if="html && fault" class="block-state fault">{{ fault }}</span>
    <span v-else-if="total > MOST_ON_SHELF" class="block-state count"
      >The first {{ MOST_ON_SHELF }} of {{ counted(total, 'file') }} stand here, a link below leads to all</span
    >
    <span v-else-if="count" class="block-state count">{{ counted(count, 'download') }}</span>
  </NodeViewWrapper>
</template>

<style scoped>
.shelf-view {
  position: relative;
  cursor: pointer;
  border-radius: 4px;
}
.shelf-view.selected {
  outline: 2px solid var(--water);
  outline-offset: 5px;
}
.empty {
  margin: 1.1em 0;
  padding: 16px;
  border: 2px dashed #9a4420;
  border-radius: 4px;
  color: #9a4420;
  font-size: 14px;
  font-weight: 600;
}
.empty.arriving {
  border-color: var(--line);
  color: var(--soft);
}
</style>
