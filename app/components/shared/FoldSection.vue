<script setup lang="ts">
/** A heading that unfolds what stands under it. What was never unfolded is not made. */
defineProps<{ heading: string }>()
const open = defineModel<boolean>('open', { default: false })
</script>

<template>
  <VExpansionPanels :model-value="open ? 0 : undefined" @update:model-value="open = $event === 0">
    <VExpansionPanel>
      <VExpansionPanelTitle>{{ heading }}<slot name="beside" /></VExpansionPanelTitle>
      <VExpansionPanelText><slot /></VExpansionPanelText>
    </VExpansionPanel>
  </VExpansionPanels>
</template>
