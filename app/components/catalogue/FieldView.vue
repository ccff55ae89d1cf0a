<script setup lang="ts">
import { NodeViewWrapper, nodeViewProps } from '@tiptap/vue-3'

/** A field in a line of words: what the first entry has there, or what the field is called. */
const props = defineProps(nodeViewProps)
const sample = useEntryHere(props)
const { field, value } = useFieldSaid(sample, () => props.node.attrs.field as string)
</script>

<template>
  <NodeViewWrapper as="span">
    <FieldWords :field="field" :value="value" :selected="selected" :title="`${field?.name} of each ${sample.catalogue.value?.one}`" />
  </NodeViewWrapper>
</template>
