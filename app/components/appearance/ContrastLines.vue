<script setup lang="ts">
import type { Appearance, Fill } from '~~/core/look/appearance'
import { contrastOf, withNearest, type ContrastResult } from '~~/core/look/contrastCheck'
import type { Palette } from '~~/core/look/palette'
import { PART_WORDS, STATE_WORDS } from '~/editor/words'

/** How well a button can be read in each of its states, and what would mend it. */
const props = defineProps<{ appearance: Appearance; palette: Palette }>()
const emit = defineEmits<{ change: [changed: Partial<Appearance>] }>()

const sampleOf = usePictureSamples()
const results = computed(() => contrastOf(props.appearance, props.palette, sampleOf))
const failing = computed(() => results.value.filter(result => !result.passes))
const worst = computed(() => Math.min(...results.value.filter(result => result.part === 'words').map(result => result.ratio)))
const said = (ratio: number) => `${(Math.floor(ratio * 10) / 10).toFixed(1)} to 1`

/** With this veil all words pass in all states that can be mended so. */
const veil = computed(() => Math.max(0, ...failing.value.map(result => result.veil ?? 0)))
function thicken() {
  const { fill, hover, pressed } = props.appearance
  const veiled = <Of extends Fill | undefined>(of: Of): Of => (of?.kind === 'picture' ? { ...of, veil: Math.max(of.veil, veil.value) } : of)
  emit('change', {
    fill: veiled(fill),
    hover: { ...hover, ...(hover.fill && { fill: veiled(hover.fill) }) },
    pressed: { ...pressed, ...(pressed.fill && { fill: veiled(pressed.fill) }) },
  })
}

function mend(result: ContrastResult) {
  const change = withNearest(props.appearance, result)
  if (change) emit('change', change)
}
</script>

<template>
  <div class="contrast" role="status">
    <p v-if="!failing.length" class="works">Easy to read: {{ said(worst) }} at the least</p>
    <p v-for="result in failing" :key="`${result.state} ${result.part}`" class="hint clay">
      {{ PART_WORDS[result.part] }}{{ STATE_WORDS[result.state] }}: {{ said(result.ratio) }}, and {{ result.least }} to 1 is needed.
      <VBtn v-if="result.nearest" @click="mend(result)"> <i :style="{ background: result.nearest }" />Take {{ result.nearest }} </VBtn>
      <template v-else-if="result.veil === undefined">No colour stands out on all of it: make the fill more even.</template>
    </p>
    <VBtn v-if="veil" @click="thicken">Veil the picture to {{ veil }} %</VBtn>
  </div>
</template>

<style scoped>
.contrast {
  display: grid;
  gap: 4px;
  justify-items: start;
}
.works {
  color: #3c6630;
  font-size: 12.5px;
}
.works::before {
  content: '';
  display: inline-block;
  width: 8px;
  height: 8px;
  border-radius: 50%;
  background: var(--moss);
  margin-right: 6px;
}
i {
  width: 12px;
  height: 12px;
  border: 1px solid #7e8d89;
  margin-right: 5px;
}
</style>
