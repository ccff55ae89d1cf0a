<script setup lang="ts">
/** A number, by a slider or typed. */
const props = withDefaults(defineProps<{ words: string; value: number; least: number; most: number; unit?: string; step?: number }>(), {
  unit: 'px',
  step: 1,
})
const emit = defineEmits<{ change: [value: number] }>()

function set(event: Event) {
  const field = event.target as HTMLInputElement
  const value = Math.min(props.most, Math.max(props.least, field.valueAsNumber))
  // An emptied field is no number yet.
  if (!Number.isNaN(value)) emit('change', value)
}
</script>

<template>
  <div class="number">
    <span class="words">{{ words }}</span>
    <input type="range" :min="least" :max="most" :step="step" :value="value" :aria-label="`${words}, slider`" tabindex="-1" @input="set" />
    <VTextField class="small" type="number" :min="least" :max="most" :step="step" :model-value="value" :aria-label="words" @change="set" />
    <span class="unit">{{ unit }}</span>
  </div>
</template>

<style scoped>
.number {
  display: grid;
  grid-template-columns: 82px minmax(30px, 1fr) 54px 18px;
  gap: 6px;
  align-items: center;
  font-size: 12.5px;
}
.words {
  color: var(--soft);
}
input[type='range'] {
  width: 100%;
  accent-color: var(--water);
  height: 24px;
  margin: 0;
}
.unit {
  color: var(--soft);
}
</style>
