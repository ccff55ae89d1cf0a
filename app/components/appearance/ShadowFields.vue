<script setup lang="ts">
import type { Shadow } from '~~/core/look/appearance'
import type { Palette } from '~~/core/look/palette'

defineProps<{ value: Shadow | null; palette: Palette }>()
const emit = defineEmits<{ change: [shadow: Shadow | null] }>()
const FIRST: Shadow = { x: 0, y: 3, blur: 8, colour: 'ink', strength: 25 }
</script>

<template>
  <div class="shadow">
    <VCheckbox label="A shadow" :model-value="value !== null" @update:model-value="emit('change', value ? null : FIRST)" />
    <template v-if="value">
      <NumberField words="Across" :least="-40" :most="40" :value="value.x" @change="emit('change', { ...value, x: $event })" />
      <NumberField words="Down" :least="-40" :most="40" :value="value.y" @change="emit('change', { ...value, y: $event })" />
      <NumberField words="Blur" :least="0" :most="80" :value="value.blur" @change="emit('change', { ...value, blur: $event })" />
      <NumberField
        words="Strength"
        unit="%"
        :least="0"
        :most="100"
        :value="value.strength"
        @change="emit('change', { ...value, strength: $event })"
      />
      <ColourField
        words="Colour of the shadow"
        :value="value.colour"
        :palette="palette"
        @change="emit('change', { ...value, colour: $event! })"
      />
    </template>
  </div>
</template>

<style scoped>
.shadow {
  display: grid;
  gap: 5px;
}
</style>
