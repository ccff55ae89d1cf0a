<script setup lang="ts">
import { MOST_WIDE, type Appearance } from '~~/core/look/appearance'
import { ROOM, measureFit, type Fit } from '~/editor/measureFit'

/** Says where the words of a button do not fit it, and mends that. */
const props = defineProps<{ appearance: Appearance; label: string; note: string }>()
const emit = defineEmits<{ change: [changed: Partial<Appearance>] }>()

const fit = shallowRef<Fit>()
watch(
  () => [props.appearance, props.label, props.note] as const,
  async ([appearance, label, note]) => {
    const measured = await measureFit(appearance, label, note)
    // Typed on meanwhile: the measure of what stands there now is on its way.
    if (props.label === label && props.appearance === appearance) fit.value = measured
  },
  { immediate: true },
)

const width = computed(() => (typeof props.appearance.width === 'number' ? props.appearance.width : undefined))
const tooNarrow = computed(() =>
  fit.value && width.value !== undefined && width.value < fit.value.oneLine ? fit.value.oneLine : undefined,
)
const phoneBreaks = computed(() => fit.value && fit.value.leastWidth > ROOM.phone)
const smaller = computed(() => Math.max(10, Math.floor((props.appearance.size * ROOM.phone) / (fit.value?.leastWidth ?? ROOM.phone))))
</script>

<template>
  <p v-if="tooNarrow" class="hint clay" role="status">
    The words need {{ tooNarrow }} px to stand on one line, and the button has {{ width }}.
    <VBtn v-if="tooNarrow <= Math.min(ROOM.desktop, MOST_WIDE)" @click="emit('change', { width: tooNarrow })">
      Make it {{ tooNarrow }} px wide
    </VBtn>
    <VBtn v-else @click="emit('change', { width: 'fill' })">Let it take all the width</VBtn>
  </p>
  <p v-if="phoneBreaks" class="hint clay" role="status">
    On a phone a word of it is broken apart.
    <VBtn v-if="smaller < appearance.size" @click="emit('change', { size: smaller })"> Set its words in {{ smaller }} px </VBtn>
  </p>
</template>
