<script setup lang="ts">
import { OWN_PAGE } from '~~/core/catalogue/bind'
import type { LedEntry } from '~~/core/catalogue/entry'
import type { ListAttrs } from '~~/core/catalogue/listAttrs'
import type { SectionAttrs } from '~~/core/page/schema'
import type { Part } from '~/editor/parts'
import { TABLE_ACTS, TABLE_HEADINGS, type TableAct } from '~/editor/table'
import { ALIGN_CHOICES, COUNT_CHOICES, SHARE_CHOICES, SPACE_CHOICES, TONE_CHOICES, WIDTH_CHOICES } from '~/editor/words'

/** The settings of what the caret or the selected block lies in: section, columns, row. */
const props = defineProps<{ part: Part; /** the catalogue whose entries are laid out here */ catalogue?: string | null }>()
const emit = defineEmits<{
  set: [attrs: Record<string, unknown>]
  columns: [count: number]
  fill: []
  table: [act: TableAct]
  move: [direction: -1 | 1]
  dissolve: []
  remove: []
  leave: []
}>()

const NAMES = {
  section: 'Section',
  columns: 'Columns',
  fold: 'Fold-out',
  buttonRow: 'Row of buttons',
  table: 'Table',
  space: 'Space',
  entryList: 'List of entries',
}
const cells = computed(() =>
  props.part.name === 'table' ? props.part.node.children.map(row => row.children.map(cell => cell.type.name === 'tableHeader')) : [],
)
const hasHeadRow = computed(() => !!cells.value[0]?.every(Boolean))
const hasHeadColumn = computed(() => cells.value.length > 0 && cells.value.every(row => row[0]))
const attrs = computed(() => props.part.node.attrs)
const of = computed(() => useCatalogues().byId.get(props.catalogue ?? ''))
/** Fields on which a section can hang, where it is laid out for all entries of a catalogue. */
const fields = computed(() => {
  return of.value
    ? [
        { value: null, title: `Every ${of.value.one}` },
        ...of.value.fields.slice(1).map(({ id, name }) => ({ value: id, title: `Only with ${name}` })),
        { value: OWN_PAGE, title: 'Only with a page of its own' },
      ]
    : []
})
const samples = useSamples()
const found = ref<LedEntry[]>([])
/** Entries that are found by what is typed, with those that are named already. */
const entries = computed(() => {
  const named = ((attrs.value.onlyFor ?? []) as string[]).flatMap(id => samples.entry(id) ?? [])
  const those = found.value.filter(({ catalogue, id }) => catalogue === props.catalogue && !named.some(each => each.id === id))
  return [...named, ...those].map(({ id, title }) => ({ value: id, title }))
})
const findEntries = useDebounceFn(async (words: string) => {
  found.value = words.trim() ? await samples.find(words) : []
}, 200)
/** words in it lead somewhere */
const linked = computed(() => {
  let found = false
  if (props.part.name === 'section')
    props.part.node.descendants(node => void (found ||= node.marks.some(({ type }) => type.name === 'downloadLink')))
  return found
})
const named = computed(() => `${props.part.name === 'columns' ? 'these' : 'this'} ${NAMES[props.part.name].toLowerCase()}`)
</script>

<template>
  <section class="part" :aria-label="`Settings of ${named}`" @keydown.esc.stop="emit('leave')">
    <h2>{{ NAMES[part.name] }}</h2>
    <template v-if="part.name === 'section'">
      <ChoiceField legend="Background" :choices="TONE_CHOICES" :value="attrs.tone" @choose="emit('set', { tone: $event })" />
      <ChoiceField
        legend="Room above and below"
        :choices="SPACE_CHOICES"
        :value="attrs.padding"
        @choose="emit('set', { padding: $event })"
      />
      <ChoiceField legend="Width" :choices="WIDTH_CHOICES" :value="attrs.width" @choose="emit('set', { width: $event })" />
      <VSelect
        v-if="fields.length"
        label="There for"
        :items="fields"
        :model-value="attrs.onlyIf"
        @update:model-value="emit('set', { onlyIf: $event })"
      />
      <VAutocomplete
        v-if="fields.length"
        :label="`Only for some ${of!.name.toLowerCase()}`"
        :items="entries"
        :model-value="attrs.onlyFor ?? []"
        multiple
        chips
        closable-chips
        no-filter
        placeholder="for all of them"
        @update:search="findEntries"
        @update:model-value="emit('set', { onlyFor: $event.length ? $event : null })"
      />
      <SectionPicture :attrs="attrs as SectionAttrs" :links="linked" @set="emit('set', $event)" />
    </template>
    <template v-else-if="part.name === 'columns'">
      <ChoiceField
        legend="How many side by side"
        :choices="COUNT_CHOICES"
        :value="part.node.childCount"
        @choose="emit('columns', $event)"
      />
      <ChoiceField
        v-if="part.node.childCount === 2"
        legend="Their width"
        :choices="SHARE_CHOICES"
        :value="attrs.share"
        @choose="emit('set', { share: $event })"
      />
    </template>
    <p v-else-if="part.name === 'fold'" class="hint">Visitors see the question; what is below it shows when they press it.</p>
    <template v-else-if="part.name === 'buttonRow'">
      <ChoiceField legend="Place of the row" :choices="ALIGN_CHOICES" :value="attrs.align" @choose="emit('set', { align: $event })" />
      <VBtn @click="emit('fill')">A button for each file of a folder…</VBtn>
    </template>
    <template v-else-if="part.name === 'table'">
      <VCheckbox
        v-for="[act, words] in TABLE_HEADINGS"
        :key="act"
        :label="`${words}`"
        :model-value="act === 'toggleHeaderRow' ? hasHeadRow : hasHeadColumn"
        @update:model-value="emit('table', act)"
      />
      <div class="acts">
        <VBtn v-for="[act, words] in TABLE_ACTS" :key="act" @click="emit('table', act)">{{ words }}</VBtn>
      </div>
    </template>
    <ListNote v-else-if="part.name === 'entryList'" :attrs="attrs as ListAttrs" :on-page-of="catalogue" @set="emit('set', $event)" />
    <ChoiceField v-else legend="How much" :choices="SPACE_CHOICES" :value="attrs.size" @choose="emit('set', { size: $event })" />
    <div class="acts">
      <VBtn :aria-label="`Move ${named} up`" @click="emit('move', -1)">Up</VBtn>
      <VBtn :aria-label="`Move ${named} down`" @click="emit('move', 1)">Down</VBtn>
      <VBtn
        v-if="!['space', 'table', 'fold', 'entryList'].includes(part.name)"
        title="What is in it stays where it is"
        @click="emit('dissolve')"
      >
        Dissolve
      </VBtn>
      <VBtn :title="part.name === 'space' ? '' : 'With all that is in it'" @click="emit('remove')"> Remove </VBtn>
    </div>
  </section>
</template>

<style scoped>
.part {
  padding: 10px 12px;
  background: #f5f8f7;
  border: 1px solid var(--line);
  border-left: 3px solid var(--straw);
  border-radius: 0 4px 4px 0;
  display: grid;
  gap: 9px;
}
h2 {
  font-size: 13px;
  font-weight: 600;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin-left: -8px;
}
</style>
