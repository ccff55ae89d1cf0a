<script setup lang="ts">
import { LARGEST_PAGE, type Condition, type ListAttrs } from '~~/core/catalogue/listAttrs'
import { TITLE, isChoice } from '~~/core/catalogue/field'
import { narrows } from '~~/core/catalogue/list'

/** The settings of a list of entries, in the margin. */
const props = defineProps<{ attrs: ListAttrs; /** it stands on the page of each entry of this catalogue */ onPageOf?: string | null }>()
const emit = defineEmits<{ set: [attrs: Partial<ListAttrs>] }>()

const catalogues = useCatalogues()
const catalogue = computed(() => catalogues.byId.get(props.attrs.catalogue ?? ''))
const fields = computed(() => catalogue.value?.fields ?? [])
const items = computed(() => catalogues.tables.map(({ id, name }) => ({ value: id, title: name })))
const WAYS = [
  { value: 'cards', title: 'Cards, laid out here' },
  { value: 'tiles', title: 'Pictures with names' },
  { value: 'lines', title: 'Lines' },
  { value: 'table', title: 'A table' },
]
const ACROSS = [
  [1, '1'],
  [2, '2'],
  [3, '3'],
  [4, '4'],
] as const
const named = computed(() => fields.value.map(({ id, name }) => ({ value: id, title: name })))
const sortItems = computed(() => [
  { value: '', title: 'Their own order' },
  ...named.value.flatMap(({ value, title }) => [
    { value, title },
    { value: `-${value}`, title: `${title}, turned round` },
  ]),
])
const sort = computed(() => (props.attrs.sort ? `${props.attrs.sort.down ? '-' : ''}${props.attrs.sort.field}` : ''))
const groupItems = computed(() => [
  { value: null, title: 'No headings' },
  ...fields.value
    .filter(({ kind }) => isChoice(kind) || kind === 'yesNo' || kind === 'text')
    .filter(({ id }) => id !== TITLE)
    .map(({ id, name }) => ({ value: id, title: name })),
])
const narrowItems = computed(() => fields.value.filter(narrows).map(({ id, name }) => ({ value: id, title: name })))

/** What an entry has to be like: each as one choice. */
const conditions = computed(() =>
  fields.value.flatMap((field): { value: string; title: string; is: Condition }[] => [
    ...(isChoice(field.kind)
      ? field.options.map(option => ({
          value: `${field.id}=${option.id}`,
          title: `${field.name}: ${option.name}`,
          is: { field: field.id, is: 'value' as const, value: option.id },
        }))
      : []),
    ...(field.kind === 'yesNo'
      ? [{ value: `${field.id}=yes`, title: `${field.name}: yes`, is: { field: field.id, is: 'value' as const, value: true } }]
      : []),
    ...(props.onPageOf === props.attrs.catalogue && (isChoice(field.kind) || field.kind === 'text') && field.id !== TITLE
      ? [
          {
            value: `${field.id}~`,
            title: `The same ${field.name} as the ${catalogue.value?.one}`,
            is: { field: field.id, is: 'same' as const },
          },
        ]
      : []),
    ...(field.id === TITLE
      ? []
      : [
          { value: `${field.id}+`, title: `With ${field.name}`, is: { field: field.id, is: 'set' as const } },
          { value: `${field.id}-`, title: `Without ${field.name}`, is: { field: field.id, is: 'empty' as const } },
        ]),
  ]),
)
const keyOf = ({ field, is, value }: Condition) =>
  is === 'value'
    ? `${field}=${value === true ? 'yes' : String(value)}`
    : is === 'same'
      ? `${field}~`
      : `${field}${is === 'set' ? '+' : '-'}`
const only = computed(() => props.attrs.only.map(keyOf))

function choose(id: string) {
  // Fields are those of another catalogue: what was said of them holds no more.
  emit('set', { catalogue: id, fields: [], sort: null, group: null, only: [], narrow: [] })
}
</script>

<template>
  <div class="list-note">
    <VSelect
      label="Lists"
      :items="items"
      :model-value="attrs.catalogue"
      placeholder="Choose a catalogue"
      no-data-text="There is no catalogue yet"
      @update:model-value="choose"
    />
    <NuxtLink v-if="catalogue" :to="`/desk/catalogues/${catalogue.id}`">Open its table</NuxtLink>
    <VSelect label="As" :items="WAYS" :model-value="attrs.way" @update:model-value="emit('set', { way: $event })" />
    <ChoiceField
      v-if="attrs.way === 'cards' || attrs.way === 'tiles'"
      legend="Side by side"
      :choices="ACROSS"
      :value="attrs.across"
      @choose="emit('set', { across: $event })"
    />
    <VSelect
      v-if="attrs.way === 'table' || attrs.way === 'lines'"
      label="Shows"
      multiple
      :items="named"
      :model-value="attrs.fields"
      placeholder="All that are shown in lists"
      @update:model-value="emit('set', { fields: $event })"
    />
    <VSelect
      label="In the order of"
      :items="sortItems"
      :model-value="sort"
      @update:model-value="emit('set', { sort: $event ? { field: $event.replace('-', ''), down: $event.startsWith('-') } : null })"
    />
    <VSelect
      label="Under headings of"
      :items="groupItems"
      :model-value="attrs.group"
      @update:model-value="emit('set', { group: $event })"
    />
    <VSelect
      label="Only those"
      multiple
      :items="conditions"
      :model-value="only"
      placeholder="All of them"
      @update:model-value="
        emit('set', { only: conditions.filter(({ value }) => ($event as string[]).includes(value)).map(({ is }) => is) })
      "
    />
    <VNumberInput
      label="On one page"
      :min="1"
      :max="LARGEST_PAGE"
      :model-value="attrs.limit"
      @update:model-value="$event && emit('set', { limit: $event })"
    />
    <VCheckbox label="Visitors can search it" :model-value="attrs.search" @update:model-value="emit('set', { search: $event === true })" />
    <VSelect
      v-if="narrowItems.length"
      label="Visitors narrow it down by"
      multiple
      :items="narrowItems"
      :model-value="attrs.narrow"
      placeholder="Nothing"
      @update:model-value="emit('set', { narrow: $event.slice(0, 6) })"
    />
  </div>
</template>

<style scoped>
.list-note {
  display: grid;
  gap: 10px;
}
</style>
