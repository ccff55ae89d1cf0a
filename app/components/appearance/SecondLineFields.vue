<script setup lang="ts">
import { secondLineOf, type Appearance, type SecondLine } from '~~/core/look/appearance'
import type { Palette } from '~~/core/look/palette'
import { SECOND_LINE_CHOICES, WEIGHT_CHOICES } from '~/editor/words'

/** The second line of a button, apart from its label. */
const props = defineProps<{ appearance: Appearance; palette: Palette }>()
const emit = defineEmits<{ change: [changed: Partial<Appearance>] }>()

/** What is set apart begins with whole pixels. */
const line = computed(() => {
  const { size, gap, ...rest } = secondLineOf(props.appearance)
  return props.appearance.second ?? { ...rest, size: Math.round(size), gap: Math.round(gap) }
})
const place = computed(() => (props.appearance.arrange === 'ends' ? 'ends' : line.value.above ? 'above' : 'below'))
const set = (changed: Partial<SecondLine>) => emit('change', { second: { ...line.value, ...changed } })

function put(where: 'below' | 'above' | 'ends') {
  if (where === 'ends') emit('change', { arrange: 'ends' })
  else
    emit('change', {
      arrange: 'stacked',
      ...(line.value.above !== (where === 'above') && { second: { ...line.value, above: where === 'above' } }),
    })
}
</script>

<template>
  <ChoiceField legend="Place" :choices="SECOND_LINE_CHOICES" :value="place" @choose="put" />
  <NumberField words="Size" :least="8" :most="48" :value="line.size" @change="set({ size: $event })" />
  <NumberField v-if="place !== 'ends'" words="To the label" :least="0" :most="40" :value="line.gap" @change="set({ gap: $event })" />
  <ChoiceField legend="Weight" :choices="WEIGHT_CHOICES" :value="line.weight" @choose="set({ weight: $event })" />
  <ColourField
    words="Colour"
    none="Same"
    :value="appearance.noteColour"
    :palette="palette"
    @change="emit('change', { noteColour: $event })"
  />
</template>
