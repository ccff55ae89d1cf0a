<script setup lang="ts">
import { mdiImagePlusOutline } from '@mdi/js'
import { NodeViewWrapper, nodeViewProps } from '@tiptap/vue-3'
import { targetOfField } from '~~/core/catalogue/bind'
import { pictureHtml } from '~~/core/page/picture'
import { targetFacts } from '~~/core/page/placeholders'
import type { PictureAttrs } from '~~/core/page/schema'

const props = defineProps(nodeViewProps)
const library = useLibrary()
const page = usePage()

const attrs = computed(() => props.node.attrs as PictureAttrs)
const { filling } = useEntryHere(props)
/** of a field, that of the first entry */
const shown = computed(() => {
  if (!attrs.value.field) return attrs.value.file
  const target = filling.value && targetOfField(attrs.value.field, filling.value)
  return target?.kind === 'file' ? target.id : null
})
const file = computed(() => (shown.value ? library.known.get(shown.value) : undefined))
const facts = computed(() => (file.value && !file.value.deleted ? targetFacts(file.value) : undefined))
const html = computed(() => (facts.value?.picture ? pictureHtml(attrs.value, facts.value, image => image) : ''))
const fault = computed(() => {
  if (attrs.value.field && !shown.value) return 'The picture of each entry stands here'
  if (!shown.value) return 'No picture chosen yet'
  if (!file.value || file.value.deleted) return 'This picture is in the bin'
  if (!html.value) return file.value.reading === 'waiting' ? 'The picture is being drawn' : 'This file cannot be shown as a picture'
  // Without words of its own it is read out as what the entry is called.
  return attrs.value.alt || attrs.value.decorative || attrs.value.field
    ? undefined
    : 'Say in the margin what it shows, for those who do not see it'
})
const count = computed(() => page.downloads[attrs.value.placement] ?? 0)
</script>

<template>
  <NodeViewWrapper class="block-view" :class="{ selected, faulty: fault && !html }" :data-placement="attrs.placement">
    <!-- Drawn by the renderer's own function, which escapes what is written in it. -->
    <!-- eslint-disable-next-line vue/no-v-html -->
    <div v-if="html" v-html="html" />
    <p v-else class="block-empty"><VIcon :icon="mdiImagePlusOutline" size="28" /> {{ fault }}</p>
    <span v-if="html && fault" class="block-state fault" contenteditable="false">{{ fault }}</span>
    <span v-else-if="count" class="block-state count" contenteditable="false">{{ counted(count, 'download') }}</span>
  </NodeViewWrapper>
</template>
