<script setup lang="ts">
import { NodeViewWrapper, nodeViewProps } from '@tiptap/vue-3'
import { buttonInner } from '~~/core/page/button'
import { cardHtml, cardParts } from '~~/core/page/card'
import type { CardAttrs } from '~~/core/page/schema'

const props = defineProps(nodeViewProps)
const page = usePage()
const { speech } = storeToRefs(useSpeech())

const attrs = computed(() => props.node.attrs as CardAttrs)
const { destination, fault } = useDestination(() => attrs.value.target)
const { appearance, className, ownCss } = useWorn(attrs)
const html = computed(() => {
  const parts = cardParts(attrs.value, destination.value, speech.value)
  return cardHtml(
    parts,
    destination.value?.file,
    `<p class="tr-place tr-left"><span class="tr-button ${className.value}">${buttonInner(parts, appearance.value)}</span></p>`,
  )
})
const count = computed(() => page.downloads[attrs.value.placement] ?? 0)
</script>

<template>
  <NodeViewWrapper class="block-view" :class="{ selected, faulty: fault }" :data-placement="attrs.placement">
    <component :is="'style'" v-if="ownCss">{{ ownCss }}</component>
    <!-- Drawn by the renderer's own functions, which escape what is written in it. -->
    <!-- eslint-disable-next-line vue/no-v-html -->
    <div class="button-view" :data-placement="attrs.placement" v-html="html" />
    <span v-if="fault" class="block-state fault" contenteditable="false">{{ fault }}</span>
    <span v-else-if="count" class="block-state count" contenteditable="false">{{ counted(count, 'download') }}</span>
  </NodeViewWrapper>
</template>
