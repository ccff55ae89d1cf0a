<script setup lang="ts">
/** The way back from a board: to the pages, or to where those begin who work on none. */
const rights = useRights()
</script>

<template>
  <NuxtLink to="/desk" class="back">{{ rights.readsPages ? 'Pages' : 'Start' }}</NuxtLink>
</template>
