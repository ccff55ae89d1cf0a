<script setup lang="ts">
import { NodeViewWrapper, nodeViewProps } from '@tiptap/vue-3'
import type { SearchAttrs } from '~~/core/page/schema'
import { searchFormHtml } from '~~/core/search/searchForm'

const props = defineProps(nodeViewProps)
const page = usePage()
const { speech } = storeToRefs(useSpeech())
const attrs = computed(() => props.node.attrs as SearchAttrs)
const html = computed(() => searchFormHtml(`tr-${attrs.value.placement}`, attrs.value.label, '', {}, speech.value))
const count = computed(() => page.downloads[attrs.value.placement] ?? 0)
</script>

<template>
  <NodeViewWrapper class="search-view" :class="{ selected }" :data-placement="attrs.placement">
    <!-- Drawn by the renderer's own function, which escapes what is written in it; nothing in it works here. -->
    <!-- eslint-disable-next-line vue/no-v-html -->
    <div inert v-html="html" />
    <span v-if="count" class="block-state count">{{ counted(count, 'download') }}</span>
  </NodeViewWrapper>
</template>

<style scoped>
.search-view {
  position: relative;
  cursor: pointer;
  border-radius: 4px;
}
.search-view.selected {
  outline: 2px solid var(--water);
  outline-offset: 5px;
}
</style>
