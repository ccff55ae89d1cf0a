<script setup lang="ts">
import type { Editor } from '@tiptap/core'
import type { DragSource } from '~/composables/carried'
import { blockUnder, type Standing } from '~/editor/spot'

/** A bar along the block under the mouse: it is dragged by it. Keys move blocks with Alt and the arrows. */
const props = defineProps<{ editor: Editor; /** what the page is written in */ area: HTMLElement | undefined }>()
const emit = defineEmits<{ select: [position: number] }>()
const block = shallowRef<Standing>()

useEventListener(
  () => props.area,
  'mousemove',
  (event: MouseEvent) => {
    if (!event.buttons) block.value = blockUnder(props.editor.view, event.clientX, event.clientY)
  },
)
useEventListener(
  () => props.area,
  'mouseleave',
  () => (block.value = undefined),
)
// Where the block stood before is no place to take hold of it.
useEventListener(
  () => props.area,
  'keydown',
  () => (block.value = undefined),
)

function source(): ReturnType<DragSource> {
  const { position } = block.value!
  const element = props.editor.view.nodeDOM(position)
  return { carried: { block: position }, picture: element instanceof HTMLElement ? element : undefined }
}
</script>

<template>
  <VBtn
    v-if="block"
    v-drag="source"
    color="ink"
    class="handle"
    tabindex="-1"
    aria-label="Drag this block"
    title="Drag it, or click to select it (Alt ↑ ↓ moves it)"
    :style="{ top: `${block.top}px`, left: `${block.left}px`, height: `${block.height}px` }"
    @dragend="block = undefined"
    @click="emit('select', block.position)"
  />
</template>

<style scoped>
.handle {
  position: absolute;
  z-index: 4;
  width: 16px;
  min-height: 20px;
  margin-left: -22px;
  cursor: grab;
}
.handle::after {
  content: '';
  position: absolute;
  inset: 0 4px;
  border-radius: 2px;
  background: var(--straw);
  opacity: 0.55;
}
.handle:hover::after {
  inset: 0 2px;
  opacity: 1;
}
@media (hover: none) {
  .handle {
    display: none;
  }
}
</style>
