<script setup lang="ts">
import { isFileKind, isNumeric, type Field } from '~~/core/catalogue/field'
import type { EntryItem, Value } from '~~/core/catalogue/entry'
import { titleOf } from '~~/core/catalogue/values'
import { cellWords } from '~/catalogue/cells'
import type { DropTarget } from '~/composables/carried'

/** One entry as a row of the table. */
const props = defineProps<{
  row: EntryItem
  index: number
  columns: Field[]
  isCurrent: boolean
  isChosen: boolean
  /** the column in which the keyboard stands; -1 where it stands in another row */
  tabStop: number
  /** the cell that is written in, where it is one of these */
  edited: { field: string; value: Value | undefined } | undefined
  /** field and entry that files are held over */
  held: string
  dropOn: (field: Field, entry: EntryItem) => DropTarget | undefined
}>()
/** what is written in that cell */
const text = defineModel<string>('text', { required: true })
const emit = defineEmits<{ toggle: []; press: [column: number]; edit: []; stand: []; take: [value: Value | null]; leave: [] }>()

const words = computed(() => props.columns.map(field => cellWords(field, props.row.values[field.id])))
const state = computed(() => (!props.row.live ? 'Not live' : props.row.waiting ? 'Changed' : 'Live'))
</script>

<template>
  <div class="row" role="row" :class="{ current: isCurrent }" :aria-rowindex="index + 2" :aria-selected="isChosen">
    <span role="gridcell" class="tick"
      ><VCheckboxBtn
        :model-value="isChosen"
        tabindex="-1"
        :aria-label="`Choose ${titleOf(row.values)}`"
        @update:model-value="emit('toggle')"
    /></span>
    <span
      v-for="(field, column) in columns"
      :key="field.id"
      v-drop="dropOn(field, row)"
      role="gridcell"
      class="cell"
      :class="{
        number: isNumeric(field.kind),
        lacks: isFileKind(field.kind) && row.values[field.id] === undefined,
        held: held === `${field.id} ${row.id}`,
        edited: edited?.field === field.id,
        first: column === 0,
      }"
      :data-cell="`${index}-${column}`"
      :tabindex="column === tabStop ? 0 : -1"
      :aria-label="`${field.name}: ${words[column] || 'empty'}`"
      @click="emit('press', column)"
      @dblclick="emit('edit')"
      @focus="emit('stand')"
    >
      <CellEditor
        v-if="edited?.field === field.id"
        v-model:text="text"
        :field="field"
        :value="edited.value"
        @take="value => emit('take', value)"
        @leave="emit('leave')"
      />
      <template v-else>{{ words[column] }}</template>
    </span>
    <span role="gridcell" class="cell state" :class="{ waits: row.waiting }">{{ state }}</span>
  </div>
</template>
