<script setup lang="ts">
import { NodeViewWrapper, nodeViewProps } from '@tiptap/vue-3'
import type { LetterboxAttrs } from '~~/core/letterbox/letterbox'
import { letterboxHtml } from '~~/core/letterbox/letterboxHtml'

/** A letterbox on the sheet, as visitors see it. */
const props = defineProps(nodeViewProps)
const { speech } = storeToRefs(useSpeech())
const attrs = computed(() => props.node.attrs as LetterboxAttrs)
const html = computed(() => letterboxHtml(attrs.value, [], speech.value))
</script>

<template>
  <NodeViewWrapper class="letterbox-view" :class="{ selected }" :data-placement="attrs.placement">
    <!-- Drawn by the renderer's own function, which escapes what is written in it; nothing in it works here. -->
    <!-- eslint-disable-next-line vue/no-v-html -->
    <div inert v-html="html" />
  </NodeViewWrapper>
</template>

<style scoped>
.letterbox-view {
  position: relative;
  cursor: pointer;
  border-radius: 4px;
}
.letterbox-view.selected {
  outline: 2px solid var(--water);
  outline-offset: 5px;
}
</style>
