<script setup lang="ts" generic="Value extends string | number">
/** A few choices side by side, of which one holds. */
const { can = () => true } = defineProps<{
  legend: string
  /** the legend is for those who hear it: what is beside says it to those who see */
  unseen?: boolean
  choices: readonly (readonly [Value, string])[]
  value: unknown
  can?: (value: Value) => boolean
}>()
const emit = defineEmits<{ choose: [value: Value] }>()
</script>

<template>
  <VRadioGroup
    class="segments"
    :label="unseen ? undefined : legend"
    :aria-label="unseen ? legend : undefined"
    :model-value="value"
    @update:model-value="emit('choose', $event as Value)"
  >
    <VRadio v-for="[choice, words] in choices" :key="choice" :value="choice" :label="words" :disabled="!can(choice)" />
  </VRadioGroup>
</template>
