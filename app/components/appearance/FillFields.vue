<script setup lang="ts">
import type { Fill } from '~~/core/look/appearance'
import type { Palette } from '~~/core/look/palette'
import { FILL_CHOICES } from '~/editor/words'

/** What a button is filled with. */
const props = defineProps<{ value: Fill, palette: Palette }>()
const emit = defineEmits<{ change: [fill: Fill] }>()

const MOST_STOPS = 5
const firstColour = computed(() => props.value.kind === 'plain' ? props.value.colour : props.value.kind === 'gradient' ? props.value.stops[0]!.colour : 'accent')

function choose(kind: Fill['kind']) {
  if (kind === 'none') emit('change', { kind })
  else if (kind === 'plain') emit('change', { kind, colour: firstColour.value })
  else emit('change', { kind, angle: 180, stops: [{ colour: firstColour.value, at: 0 }, { colour: firstColour.value === 'accentDark' ? 'accent' : 'accentDark', at: 100 }] })
}

type Gradient = Extract<Fill, { kind: 'gradient' }>
const gradient = computed(() => props.value as Gradient)
const changeStop = (index: number, change: Partial<Gradient['stops'][number]>) =>
  emit('change', { ...gradient.value, stops: gradient.value.stops.map((stop, at) => at === index ? { ...stop, ...change } : stop) })
</script>

<template>
  <div class="fill-fields">
    <ChoiceField legend="Fill" :choices="FILL_CHOICES" :value="value.kind" @choose="choose" />
    <ColourField v-if="value.kind === 'plain'" words="Colour of the fill" :value="value.colour" :palette="palette" @change="emit('change', { kind: 'plain', colour: $event! })" />
    <template v-else-if="value.kind === 'gradient'">
      <NumberField words="Direction" unit="°" :least="0" :most="360" :step="5" :value="value.angle" @change="emit('change', { ...value, angle: $event })" />
      <div v-for="(stop, index) in value.stops" :key="index" class="stop">
        <ColourField :words="`Stop ${index + 1}`" :value="stop.colour" :palette="palette" @change="changeStop(index, { colour: $event! })" />
        <NumberField words="At" unit="%" :least="0" :most="100" :value="stop.at" @change="changeStop(index, { at: $event })" />
        <button v-if="value.stops.length > 2" type="button" class="plain" @click="emit('change', { ...value, stops: value.stops.filter((_, at) => at !== index) })">Leave out stop {{ index + 1 }}</button>
      </div>
      <button v-if="value.stops.length < MOST_STOPS" type="button" class="plain" @click="emit('change', { ...value, stops: [...value.stops, { colour: firstColour, at: 100 }] })">Another stop</button>
    </template>
  </div>
</template>

<style scoped>
.fill-fields { display: grid; gap: 8px; justify-items: stretch; }
.stop { display: grid; gap: 4px; border-left: 2px solid var(--line); padding-left: 8px; }
.plain { justify-self: start; }
</style>
