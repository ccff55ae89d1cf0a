<script setup lang="ts">
import type { Look } from '~~/core/look/look'

/** A small drawing of a look, for choosing among several; its words say nothing. */
defineProps<{ look: Look }>()
</script>

<template>
  <span class="sample tr-page" aria-hidden="true"
    ><span class="tr-button" :class="`tr-look-${look.id}`"><span class="tr-label">Abc</span></span></span
  >
</template>

<style scoped>
.sample {
  display: grid;
  place-items: center;
  width: 100%;
  height: 34px;
  overflow: hidden;
  container-type: normal;
  background: var(--paper);
  pointer-events: none;
}
.sample .tr-button {
  zoom: 0.55;
  max-width: 120px;
}
</style>
