<script setup lang="ts">
/** A number, by a slider or typed. */
const props = withDefaults(defineProps<{ words: string; value: number; least: number; most: number; unit?: string; step?: number }>(), {
  unit: 'px',
  step: 1,
})
const emit = defineEmits<{ change: [value: number] }>()

/** An emptied field is no number yet. */
function set(value: number | null) {
  if (value !== null) emit('change', Math.min(props.most, Math.max(props.least, value)))
}
</script>

<template>
  <div class="number">
    <span class="words">{{ words }}</span>
    <VSlider :min="least" :max="most" :step="step" :model-value="value" :aria-label="`${words}, slider`" @update:model-value="set" />
    <VNumberInput
      class="small"
      control-variant="hidden"
      :min="least"
      :max="most"
      :step="step"
      :precision="null"
      :model-value="value"
      :aria-label="words"
      @update:model-value="set"
    />
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
.unit {
  color: var(--soft);
}
</style>
