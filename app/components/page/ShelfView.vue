<script setup lang="ts">
import { NodeViewWrapper, nodeViewProps } from '@tiptap/vue-3'
import { mapListing } from '~~/core/shelf/listing'
import { targetFacts } from '~~/core/page/placeholders'
import { SHELF_LOOK } from '~~/core/page/html'
import type { ShelfAttrs } from '~~/core/page/schema'
import { renderShelf } from '~~/core/shelf/shelf'
import { shownBy } from '~~/core/shelf/shelfLook'

const props = defineProps(nodeViewProps)
const page = usePage()
const { speech } = storeToRefs(useSpeech())

const attrs = computed(() => props.node.attrs as ShelfAttrs)
const { files, listed, fault: trouble } = useShelf(computed(() => attrs.value.source))
const looks = useShelfLooks()
const shown = computed(() => shownBy(attrs.value, id => looks.byId.get(id)?.shown))
const mayBeSeen = useLooking()
const behind = useBehind()
const uploads = useUploads()
/** its files are still on their way */
const arriving = computed(() => !!uploads.forPlacement(attrs.value.placement))
const fault = computed(() => (arriving.value ? '' : trouble.value))
const html = computed(() =>
  renderShelf(
    mapListing(listed.value, file => targetFacts(file, mayBeSeen(file), behind(file))),
    {
      attrs: attrs.value,
      shown: shown.value,
      iconOf: looks.iconFor,
      buttonClass: () => `tr-look-${SHELF_LOOK}`,
      now: Date.now(),
      speech: speech.value,
    },
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
    <span v-else-if="listed.total" class="block-state count"
      >The first {{ files.length }} of {{ counted(listed.total, 'file') }} stand here, a link below leads to all</span
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
