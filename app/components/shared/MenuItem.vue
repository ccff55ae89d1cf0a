<script setup lang="ts">
/** One thing that may be done, in a `MenuList`. */
</script>

<template>
  <VListItem role="menuitem">
    <template v-if="$slots.default" #default><slot /></template>
  </VListItem>
</template>
