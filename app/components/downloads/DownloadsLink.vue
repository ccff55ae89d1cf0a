<script setup lang="ts">
import type { Listed } from '~~/core/tally/particulars'
import { mayOpen } from '~/rights/boards'

/** How often something was taken, with the way to its board for who may see that. */
const props = defineProps<{ dimension: Listed; of: string; count: number; words: string }>()
const rights = useRights()
const place = computed(() => `/desk/downloads?span=all&${props.dimension}=${props.of}`)
</script>

<template>
  <NuxtLink v-if="count && mayOpen(rights, place)" :to="place">{{ words }}</NuxtLink>
  <template v-else>{{ words }}</template>
</template>
