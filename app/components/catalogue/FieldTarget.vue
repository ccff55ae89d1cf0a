<script setup lang="ts">
import { OWN_PAGE } from '~~/core/catalogue/bind'
import { isTarget } from '~~/core/catalogue/field'
import type { Target } from '~~/core/page/schema'

/** What each entry has, as what a button, a link or a picture leads to; only where it is laid out for all of them. */
const props = defineProps<{
  catalogue?: string | null
  target: Target | null
  /** words can stand in its place where an entry has none */ without?: boolean
}>()
const emit = defineEmits<{ lead: [target: Target] }>()

const of = computed(() => useCatalogues().byId.get(props.catalogue ?? ''))
const items = computed(() =>
  of.value
    ? [
        { value: OWN_PAGE, title: `Its own page` },
        ...of.value.fields.filter(({ kind }) => isTarget(kind) || kind === 'picture').map(({ id, name }) => ({ value: id, title: name })),
      ]
    : [],
)
const field = computed(() => (props.target?.kind === 'field' ? props.target.field : null))
const words = computed(() => (props.target?.kind === 'field' ? (props.target.without ?? '') : ''))
</script>

<template>
  <div v-if="items.length" class="field-target">
    <VSelect
      :label="`What each ${of!.one} has`"
      :items="items"
      :model-value="field"
      placeholder="The same for all"
      @update:model-value="emit('lead', { kind: 'field', field: $event })"
    />
    <VTextField
      v-if="without && field && field !== OWN_PAGE"
      label="Said where it has none"
      maxlength="200"
      :model-value="words"
      placeholder="nothing"
      @update:model-value="emit('lead', { kind: 'field', field, ...($event && { without: $event }) })"
    />
  </div>
</template>

<style scoped>
.field-target {
  grid-column: 1 / -1;
  display: grid;
  gap: 8px;
}
</style>
