<script setup lang="ts">
import PageBoard from '~/components/page/PageBoard.vue'

const route = useRoute()
</script>

<template>
  <PageBoard
    :id="String(route.params.id)"
    :key="String(route.params.id)"
    :at="typeof route.query.at === 'string' ? route.query.at : undefined"
  />
</template>
