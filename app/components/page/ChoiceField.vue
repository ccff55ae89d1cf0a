<script setup lang="ts" generic="Value extends string | number">
/** A few choices side by side, of which one holds. */
defineProps<{ legend: string; choices: readonly (readonly [Value, string])[]; value: unknown }>()
const emit = defineEmits<{ choose: [value: Value] }>()
const group = useId()
</script>

<template>
  <fieldset class="field">
    <legend>{{ legend }}</legend>
    <div class="choices">
      <label v-for="[choice, words] in choices" :key="choice"
        ><input type="radio" :name="group" :checked="value === choice" @change="emit('choose', choice)" /><span>{{ words }}</span></label
      >
    </div>
  </fieldset>
</template>
