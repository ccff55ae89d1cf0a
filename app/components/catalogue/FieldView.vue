<script setup lang="ts">
import { NodeViewWrapper, nodeViewProps } from '@tiptap/vue-3'
import { isFileKind } from '~~/core/catalogue/field'
import { sayValue } from '~~/core/catalogue/values'

/** A field in a line of words: what the first entry has there, or what the field is called. */
const props = defineProps(nodeViewProps)
const { catalogue, filling } = useEntryHere(props)
const field = computed(() => catalogue.value?.fields.find(({ id }) => id === props.node.attrs.field))
const value = computed(() => {
  if (!field.value || !filling.value) return ''
  const held = filling.value.entry.values[field.value.id]
  if (!isFileKind(field.value.kind)) return sayValue(field.value, held, filling.value.speech)
  return [held ?? []]
    .flat()
    .map(id => filling.value!.fileTitle(String(id)) ?? '')
    .join(', ')
})
/** Braces say that it is no word of the page. */
const named = computed(() => (field.value ? `{${field.value.name}}` : 'A field that is gone'))
</script>

<template>
  <NodeViewWrapper
    as="span"
    class="field-view"
    :class="{ selected, empty: !value, gone: !field }"
    :title="field ? `${field.name} of each ${catalogue?.one}` : 'This field is gone: visitors see nothing here'"
    >{{ value || named }}</NodeViewWrapper
  >
</template>

<style scoped>
.field-view {
  border-bottom: 2px dotted var(--water);
  cursor: pointer;
  white-space: pre-line;
}
.field-view.selected {
  outline: 2px solid var(--water);
  outline-offset: 2px;
}
.field-view.empty {
  color: var(--soft);
}
.field-view.gone {
  border-bottom-color: #9a4420;
  color: #9a4420;
}
</style>
