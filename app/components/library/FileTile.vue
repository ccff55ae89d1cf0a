<script setup lang="ts">
import type { FoundFile } from '~~/core/files/fileItem'
import { formatExactSize, formatSize } from '~~/core/files/size'

/** A file as a tile with its picture. */
defineProps<{ file: FoundFile; chosen: boolean; tabbable: boolean }>()
defineEmits<{ toggle: [event: MouseEvent] }>()
</script>

<template>
  <!-- eslint-disable vue/no-restricted-html-elements -- one of 50,000: what a row is made of is what scrolling costs -->
  <div class="tile" :class="{ chosen }">
    <FilePicture :file="file" class="picture" />
    <input type="checkbox" tabindex="-1" :checked="chosen" :aria-label="`Choose ${file.title}`" @click.stop="$emit('toggle', $event)" />
    <span class="line"
      ><NuxtLink
        :to="`/desk/files/${file.id}`"
        class="title"
        :tabindex="tabbable ? 0 : -1"
        :title="`${file.title}\n${file.fileName}`"
        draggable="false"
        >{{ file.title }}</NuxtLink
      ></span
    >
    <span class="facts"
      ><TypeTag :tag="file.tag" :family="file.family" /><span class="size" :title="formatExactSize(file.size)">{{
        formatSize(file.size)
      }}</span
      ><span
        v-if="file.remarks.length || file.reading === 'failed'"
        class="mark"
        :title="[...file.remarks, file.readingError ?? ''].join(' ')"
        >!</span
      ></span
    >
  </div>
</template>

<style scoped>
.tile {
  position: relative;
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto auto;
  gap: 4px;
  height: 100%;
  padding: 7px;
  box-sizing: border-box;
  border: 1px solid transparent;
  border-radius: 4px;
  cursor: grab;
  min-width: 0;
}
.tile:hover,
.tile:focus-within {
  background: #f1f6f5;
  border-color: var(--line);
}
.tile.chosen {
  background: #d9e8e6;
  border-color: var(--water);
}
.picture {
  min-height: 0;
}
input {
  position: absolute;
  left: 12px;
  top: 12px;
  width: 16px;
  height: 16px;
  margin: 0;
  accent-color: var(--water);
  opacity: 0;
}
.tile:hover input,
.tile.chosen input,
.tile:focus-within input {
  opacity: 1;
}
.line {
  min-width: 0;
  display: flex;
}
.title {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  color: var(--ink);
  text-decoration: none;
}
.facts {
  display: flex;
  align-items: center;
  gap: 8px;
}
.size {
  font:
    12px 'IBM Plex Mono',
    monospace;
  color: var(--soft);
}
.mark {
  margin-left: auto;
  width: 16px;
  text-align: center;
  font-weight: 700;
  line-height: 16px;
  color: #fff;
  background: #9a4420;
  border-radius: 3px;
}
@media (hover: none) {
  input {
    opacity: 1;
  }
}
</style>
