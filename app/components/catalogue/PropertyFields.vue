<script setup lang="ts">
import type { CatalogueItem } from '~~/core/catalogue/catalogue'
import { PROPERTIES, canBeTold } from '~~/core/catalogue/properties'
import { PROPERTY_WORDS } from '~/catalogue/propertyWords'

/** Which field of a catalogue says which property to search engines, where its owner does not leave that to their kinds. */
const props = defineProps<{ catalogue: CatalogueItem }>()
const emit = defineEmits<{ change: [properties: CatalogueItem['properties']] }>()

/** Properties that some field can be told as, each with those that can be. */
const properties = computed(() => {
  const { type, fields } = props.catalogue
  if (!type) return []
  return Object.keys(PROPERTIES[type]).flatMap(property => {
    const items = fields.filter(field => canBeTold(type, property, field)).map(({ id, name: title }) => ({ value: id, title }))
    return items.length ? [{ property, items }] : []
  })
})
function choose(property: string, field: string | null) {
  const { [property]: _, ...others } = props.catalogue.properties
  emit('change', field ? { ...others, [property]: field } : others)
}
</script>

<template>
  <FoldSection v-if="properties.length" heading="Which field says what">
    <p class="hint">Left empty, price, days, place and papers are told by their kinds.</p>
    <VSelect
      v-for="{ property, items } in properties"
      :key="property"
      :label="PROPERTY_WORDS[property] ?? property"
      :items="items"
      :model-value="catalogue.properties[property] ?? null"
      clearable
      placeholder="by itself"
      @update:model-value="choose(property, $event)"
    />
  </FoldSection>
</template>
