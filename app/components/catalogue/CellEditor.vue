<script setup lang="ts">
import { isChoice, isFileKind, type Field } from '~~/core/catalogue/field'
import type { Value } from '~~/core/catalogue/entry'

/** What a cell is written in while it is edited. */
const props = defineProps<{ field: Field; value: Value | undefined }>()
const emit = defineEmits<{
  /** something was chosen */
  take: [value: Value | null]
  /** the keyboard went elsewhere */
  leave: []
}>()
const text = defineModel<string>('text', { required: true })

const options = computed(() => props.field.options.map(({ id, name }) => ({ value: id, title: name })))
const types = computed(() => (props.field.kind === 'picture' ? ['picture'] : undefined))
</script>

<template>
  <VAutocomplete
    v-if="isChoice(field.kind)"
    v-focus
    class="editor"
    menu
    auto-select-first
    clearable
    :aria-label="field.name"
    :items="options"
    :model-value="value"
    @update:model-value="emit('take', $event)"
  />
  <FileFinder
    v-else-if="isFileKind(field.kind)"
    class="finder"
    :label="`Find the file for ${field.name}`"
    :types="types"
    @choose="emit('take', $event.id)"
    @close="emit('leave')"
  />
  <VTextField
    v-else
    v-model="text"
    v-focus
    class="editor"
    :aria-label="field.name"
    :inputmode="field.kind === 'number' || field.kind === 'money' ? 'decimal' : undefined"
    :placeholder="field.kind === 'date' ? 'yyyy-mm-dd' : undefined"
    @blur="emit('leave')"
  />
</template>

<style scoped>
.editor {
  min-width: 100%;
  background: #fff;
}
.editor :deep(.v-field) {
  --v-input-control-height: 32px;
  border-radius: 0;
}
.editor :deep(.v-field__input) {
  min-height: 32px;
  padding: 2px 7px;
}
.finder {
  position: absolute;
  top: 0;
  left: 0;
  min-width: 320px;
}
</style>
