<script setup lang="ts">
/** A patch of a colour; pressed, it lets one mix another. */
defineProps<{
  words: string
  hex: string
  /** it is the one that holds */ held?: boolean
  /** it has no colour yet */ none?: boolean
}>()
const emit = defineEmits<{ change: [hex: string] }>()
</script>

<template>
  <VMenu :close-on-content-click="false" location="bottom start">
    <template #activator="{ props: activator }">
      <VBtn v-bind="activator" class="patch" :class="{ held, none }" :style="{ '--hex': hex }" :aria-label="words" :title="words" />
    </template>
    <VColorPicker
      :model-value="hex"
      mode="hex"
      hide-inputs
      width="240"
      canvas-height="110"
      @update:model-value="emit('change', $event.slice(0, 7).toUpperCase())"
    />
  </VMenu>
</template>

<style scoped>
.patch,
.patch:hover {
  width: var(--patch-width, 20px);
  min-height: var(--patch-height, 22px);
  padding: 0;
  background: var(--hex) !important;
  border: 1px solid #7e8d89;
}
.held {
  outline: 2px solid var(--water);
  outline-offset: 1px;
}
.none,
.none:hover {
  background: repeating-conic-gradient(#c9d2d0 0 25%, #fff 0 50%) 0 0/8px 8px !important;
}
</style>
