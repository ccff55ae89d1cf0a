<script setup lang="ts">
/** How something went, drawn small; the numbers beside it say the same. */
const props = defineProps<{ values: readonly number[] }>()
const WIDTH = 72
const HEIGHT = 18
/** More turns than this cannot be told apart. */
const MOST = 24
const parts = computed(() => {
  const each = Math.max(1, Math.ceil(props.values.length / MOST))
  return Array.from({ length: Math.ceil(props.values.length / each) }, (_, part) =>
    props.values.slice(part * each, (part + 1) * each).reduce((sum, value) => sum + value, 0),
  )
})
const points = computed(() => {
  const most = Math.max(1, ...parts.value)
  const step = WIDTH / Math.max(1, parts.value.length - 1)
  const heightOf = (value: number) => HEIGHT - 1 - (value / most) * (HEIGHT - 2)
  return parts.value.map((value, place) => `${(place * step).toFixed(1)},${heightOf(value).toFixed(1)}`).join(' ')
})
</script>

<template>
  <svg :width="WIDTH" :height="HEIGHT" :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" aria-hidden="true">
    <polyline :points="points" fill="none" stroke="currentColor" stroke-width="1.4" stroke-linejoin="round" />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  color: var(--water);
}
</style>
