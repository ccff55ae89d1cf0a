<script setup lang="ts">
import type { FileItem } from '~~/core/files/item'

defineProps<{ file: FileItem }>()
const broken = ref(false)
</script>

<template>
  <span class="file-picture">
    <img v-if="file.preview === 'ready' && !broken" :src="`/api/files/${file.id}/preview`" :alt="`First page of ${file.title}`" @error="broken = true">
    <TypeTag v-else :tag="file.tag" :family="file.family" />
  </span>
</template>

<style scoped>
.file-picture { display: grid; place-items: center; background: #DCE3E1; border: 1px solid var(--line); border-radius: 3px; overflow: hidden; }
img { display: block; width: 100%; height: 100%; object-fit: contain; object-position: top; background: #fff; }
</style>
