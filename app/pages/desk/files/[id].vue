<script setup lang="ts">
import FileBoard from '~/components/library/FileBoard.vue'

const route = useRoute()
</script>

<template>
  <FileBoard :id="String(route.params.id)" :key="String(route.params.id)" />
</template>
