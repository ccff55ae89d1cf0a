<script setup lang="ts">
import type { FileItem } from '~~/core/files/fileItem'
import { minutes } from '~/library/fileColumns'

/** A file at a glance: its own picture, its first page, or else its first words. */
const props = defineProps<{ file: FileItem }>()
const broken = ref(false)
const source = computed(() => props.file.picture ?? (props.file.preview === 'ready' ? props.file.id : undefined))
/** Contents that change get another picture under the same address. */
const version = computed(() => (props.file.picture ? '' : `?v=${props.file.sha256.slice(0, 8)}`))
watch(source, () => (broken.value = false))
</script>

<template>
  <span class="file-picture" :class="{ worded: !source || broken }">
    <img
      v-if="source && !broken"
      :src="`/api/files/${source}/preview${version}`"
      :alt="`First page of ${file.title}`"
      loading="lazy"
      draggable="false"
      @error="broken = true"
    />
    <template v-else>
      <span v-if="file.facts.excerpt" class="excerpt" aria-hidden="true">{{ file.facts.excerpt }}</span>
      <b v-else-if="file.facts.seconds !== undefined" class="length">{{ minutes(file.facts.seconds) }}</b>
      <TypeTag v-if="!file.facts.excerpt" class="tag" :tag="file.tag" :family="file.family" />
    </template>
  </span>
</template>

<style scoped>
.file-picture {
  position: relative;
  display: grid;
  place-items: center;
  background: #dce3e1;
  border: 1px solid var(--line);
  border-radius: 3px;
  overflow: hidden;
}
img {
  display: block;
  width: 100%;
  height: 100%;
  object-fit: contain;
  object-position: center;
}
.excerpt {
  position: absolute;
  inset: 8px 12% 0;
  padding: 8px;
  background: #fff;
  border: 1px solid var(--line);
  border-bottom: 0;
  font-size: 6.5px;
  line-height: 1.35;
  white-space: pre-wrap;
  overflow: hidden;
  color: #3f4c49;
}
.length {
  font:
    500 17px 'IBM Plex Mono',
    monospace;
  align-self: end;
}
.length ~ .tag {
  align-self: start;
}
</style>
