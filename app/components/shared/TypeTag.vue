<script setup lang="ts">
import type { Family } from '~~/core/files/mediaType'

defineProps<{ tag: string; family: Family }>()
</script>

<template>
  <span class="type-tag" :class="family">{{ tag }}</span>
</template>

<style scoped>
.type-tag {
  --n: 5px;
  display: inline-block;
  min-width: 42px;
  padding: 0 5px;
  box-sizing: border-box;
  font:
    500 10.5px/18px 'IBM Plex Mono',
    monospace;
  text-align: center;
  letter-spacing: 0.02em;
  color: var(--ink);
  background: #cbd5d2;
}
.document {
  clip-path: polygon(0 0, calc(100% - var(--n)) 0, 100% var(--n), 100% 100%, 0 100%);
}
.sheet {
  clip-path: polygon(
    0 0,
    100% 0,
    100% calc(100% - var(--n)),
    calc(100% - var(--n)) calc(100% - var(--n)),
    calc(100% - var(--n)) 100%,
    0 100%
  );
}
.slides {
  clip-path: polygon(0 0, 100% 0, 100% 100%, 0 100%, 0 65%, 4px 50%, 0 35%);
}
.picture {
  clip-path: polygon(var(--n) 0, 100% 0, 100% 100%, 0 100%, 0 var(--n));
}
.sound {
  clip-path: polygon(0 0, 100% 0, 100% 35%, calc(100% - 4px) 50%, 100% 65%, 100% 100%, 0 100%);
}
.film {
  clip-path: polygon(0 0, 100% 0, 100% 35%, calc(100% - 4px) 50%, 100% 65%, 100% 100%, 0 100%, 0 65%, 4px 50%, 0 35%);
}
.archive {
  clip-path: polygon(0 0, calc(50% - 4px) 0, 50% 4px, calc(50% + 4px) 0, 100% 0, 100% 100%, 0 100%);
}
</style>
