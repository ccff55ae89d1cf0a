<script setup lang="ts">
import type { Field } from '~~/core/catalogue/field'

/** A field in a line of words on the sheet: what it says, or what it is called; braces say that this is no word of the page. */
const props = defineProps<{ field: Field | undefined; value: string; selected: boolean; title: string }>()
const named = computed(() => (props.field ? `{${props.field.name}}` : 'A field that is gone'))
</script>

<template>
  <span
    class="field-view"
    :class="{ selected, empty: !value, gone: !field }"
    :title="field ? title : 'This field is gone: visitors see nothing here'"
    >{{ value || named }}</span
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
