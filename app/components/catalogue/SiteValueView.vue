<script setup lang="ts">
import { NodeViewWrapper, nodeViewProps } from '@tiptap/vue-3'

/** A value of the whole site in a line of words, as it is written. */
const props = defineProps(nodeViewProps)
const catalogues = useCatalogues()
const { field, value } = useFieldSaid(
  useSample(() => catalogues.ofSite?.id),
  () => props.node.attrs.field as string,
)
</script>

<template>
  <NodeViewWrapper as="span">
    <FieldWords :field="field" :value="value" :selected="selected" :title="`${field?.name}: a value of the whole site`" />
  </NodeViewWrapper>
</template>
