<script setup lang="ts">
import { NodeViewContent, NodeViewWrapper, nodeViewProps } from '@tiptap/vue-3'
import { isWideList, type ListAttrs } from '~~/core/catalogue/listAttrs'
import { titleOf } from '~~/core/catalogue/values'

/** A list of entries on the sheet as visitors get its first page; of cards one that all are laid out like, and others by their names. */
const props = defineProps(nodeViewProps)
const catalogues = useCatalogues()
const attrs = computed(() => props.node.attrs as ListAttrs)
const { catalogue, entries, filling } = useSample(() => attrs.value.catalogue)
const across = computed(() => (attrs.value.way === 'cards' || attrs.value.way === 'tiles' ? attrs.value.across : 1))
/** As many as show how it goes on. */
const others = computed(() => entries.value.filter(({ id }) => id !== filling.value?.entry.id).slice(0, Math.max(across.value * 2, 3) - 1))
const html = useDrawnList(() => props.node, { catalogue, entries, filling })
/** What is not written in is the list itself: it has its settings in the margin. */
function select(event: MouseEvent) {
  const position = props.getPos()
  const isWritten = (event.target as HTMLElement).closest('.card')
  if (position === undefined || isWritten) return
  props.editor.commands.setNodeSelection(position)
  props.editor.view.focus()
}
const fault = computed(() => {
  if (!attrs.value.catalogue) return 'Choose in the margin which catalogue it lists'
  if (catalogues.loaded && !catalogue.value) return 'The catalogue it listed is gone'
  return catalogue.value && !catalogue.value.entries ? `There is no ${catalogue.value.one} yet: visitors see nothing here` : ''
})
</script>

<template>
  <NodeViewWrapper
    class="list-view"
    :class="{ selected, 'tr-entries': attrs.way === 'cards', 'tr-wide': isWideList(attrs) }"
    :data-placement="attrs.placement"
    @click="select"
  >
    <p class="bar" contenteditable="false">
      {{
        fault ||
        (catalogue &&
          `${counted(catalogue.entries, catalogue.one, catalogue.name.toLowerCase())}: ${attrs.way === 'cards' ? `this card is laid out for each ${catalogue.one}` : 'the first of them'}`)
      }}
    </p>
    <div v-show="attrs.way === 'cards'" class="tr-entry-list tr-entry-cards" :class="`tr-across-${across}`">
      <div class="card"><NodeViewContent class="content" /></div>
      <div v-for="entry in others" :key="entry.id" class="other" contenteditable="false">{{ titleOf(entry.values) }}</div>
    </div>
    <!-- Drawn by the renderer's own function, which escapes what is written in it; nothing in it works here. -->
    <!-- eslint-disable-next-line vue/no-v-html -->
    <div v-if="html" inert contenteditable="false" v-html="html" />
  </NodeViewWrapper>
</template>

<style scoped>
.list-view {
  position: relative;
  outline: 1px dashed #b9c4c1;
  outline-offset: 5px;
}
.list-view.selected {
  outline: 2px solid var(--water);
}
.bar {
  margin: 0 0 0.7em;
  color: #55605c;
  font:
    400 calc(12.5px / var(--zoom)) / 1.5 'Hanken Grotesk Variable',
    sans-serif;
  cursor: pointer;
}
.card,
.other {
  min-width: 0;
  padding: 1.15rem;
  background: color-mix(in srgb, var(--rule) 22%, var(--paper));
  border-top: 3px solid var(--accent);
}
.other {
  color: var(--soft);
  font: 560 var(--h3) / 1.22 var(--heading);
  opacity: 0.7;
}
.content :deep(.tr-picture) {
  margin-block: 0 0.8em;
}
.content :deep(.block-view + :is(h2, h3, h4)),
.content :deep(:is(h2, h3, h4):first-child) {
  margin-top: 0;
}
</style>
