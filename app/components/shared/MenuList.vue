<script setup lang="ts">
/** What may be done, one below the other, in a menu. */
</script>

<template>
  <VList role="menu"><slot /></VList>
</template>
