<script setup lang="ts">
import type { Spot } from '~/editor/spot'

/** Shows where something held over the page would go. */
defineProps<{ spot: Spot; /** what letting it go there would do */ words: string }>()
const pixels = (mark: object) => Object.fromEntries(Object.entries(mark).map(([side, length]) => [side, `${length}px`]))
</script>

<template>
  <div v-if="spot.kind === 'words'" class="drop-words">These words become a link</div>
  <template v-else>
    <div v-if="spot.kind === 'between' && spot.holder" class="drop-holder" :style="pixels(spot.holder)" />
    <div class="drop-mark" :class="spot.kind" :style="pixels(spot.mark)">
      <span>{{ words }}</span>
    </div>
  </template>
</template>

<style scoped>
.drop-mark {
  position: absolute;
  background: var(--water);
  pointer-events: none;
  z-index: 5;
}
.drop-holder {
  position: absolute;
  border: 1.5px dashed var(--water);
  border-radius: 3px;
  pointer-events: none;
  z-index: 5;
}
.drop-mark.button {
  background: none;
  border: 3px solid var(--water);
  border-radius: 8px;
}
.drop-mark span {
  position: absolute;
  right: 0;
  bottom: 100%;
  white-space: nowrap;
  padding: 0 8px;
  font-size: 12px;
  line-height: 19px;
  background: var(--water);
  color: #fff;
  border-radius: 3px 3px 0 0;
}
.drop-words {
  position: sticky;
  bottom: 16px;
  width: max-content;
  padding: 4px 10px;
  background: var(--water);
  color: #fff;
  border-radius: 3px;
  pointer-events: none;
}
</style>
