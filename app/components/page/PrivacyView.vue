<script setup lang="ts">
import { NodeViewWrapper, nodeViewProps } from '@tiptap/vue-3'
import { keptSchema, type Kept } from '~~/core/privacy/kept'
import { privacyHtml } from '~~/core/privacy/privacyHtml'

defineProps(nodeViewProps)
const { speech } = storeToRefs(useSpeech())
const kept = shallowRef<Kept>()
const { problem, attempt } = useAttempt()
onMounted(() => attempt(async () => (kept.value = await ask(keptSchema, '/site/kept'))))
const html = computed(() => kept.value && privacyHtml(kept.value, speech.value))
</script>

<template>
  <NodeViewWrapper class="privacy-view" :class="{ selected }" :data-placement="node.attrs.placement">
    <p v-if="problem" role="alert">{{ problem }}</p>
    <!-- Drawn by the renderer's own function, which escapes what it says. -->
    <!-- eslint-disable-next-line vue/no-v-html -->
    <div v-else-if="html" v-html="html" />
  </NodeViewWrapper>
</template>

<style scoped>
.privacy-view {
  cursor: pointer;
  border-radius: 4px;
}
.privacy-view.selected {
  outline: 2px solid var(--water);
  outline-offset: 5px;
}
</style>
