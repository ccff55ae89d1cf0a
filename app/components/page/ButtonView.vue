<script setup lang="ts">
import { NodeViewWrapper, nodeViewProps } from '@tiptap/vue-3'
import { buttonInner, buttonParts } from '~~/core/page/button'
import type { ButtonAttrs } from '~~/core/page/schema'

const props = defineProps(nodeViewProps)
const uploads = useUploads()
const page = usePage()
const { speech } = storeToRefs(useSpeech())

const attrs = computed(() => props.node.attrs as ButtonAttrs)
const { filling } = useEntryHere(props)
const { destination, fault: missing } = useDestination(
  () => attrs.value.target,
  () => filling.value,
)
const upload = computed(() => uploads.forPlacement(attrs.value.placement))
const { appearance, className, ownCss } = useWorn(attrs)
const inner = computed(() => buttonInner(buttonParts(attrs.value, destination.value, speech.value), appearance.value))
const fault = computed(() => (upload.value ? undefined : missing.value))
const count = computed(() => page.downloads[attrs.value.placement] ?? 0)
</script>

<template>
  <!-- The element that visitors get, so that what stands beside it lies as it does for them. -->
  <NodeViewWrapper
    as="p"
    class="tr-place button-view"
    :class="[`tr-${attrs.align}`, { selected, faulty: fault }]"
    :data-placement="attrs.placement"
  >
    <component :is="'style'" v-if="ownCss">{{ ownCss }}</component>
    <!-- Drawn by the renderer's own functions; both escape what is written in them. -->
    <!-- eslint-disable-next-line vue/no-v-html -->
    <span class="tr-button" :class="className" v-html="inner" />
    <span v-if="upload" class="block-state" contenteditable="false">
      {{ upload.state === 'failed' ? upload.error : `Arriving: ${Math.floor((100 * upload.sent) / Math.max(1, upload.size))} %` }}
    </span>
    <span v-else-if="fault" class="block-state fault" contenteditable="false">{{ fault }}</span>
    <span v-else-if="count" class="block-state count" contenteditable="false">{{ counted(count, 'download') }}</span>
  </NodeViewWrapper>
</template>

<style scoped>
.button-view {
  position: relative;
  cursor: pointer;
  border-radius: 4px;
}
.button-view.selected {
  outline: 2px solid var(--water);
  outline-offset: 5px;
}
.button-view.faulty :deep(.tr-button) {
  outline: 2px dashed #9a4420;
  outline-offset: 3px;
}
</style>
