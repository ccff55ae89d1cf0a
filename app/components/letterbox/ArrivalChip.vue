<script setup lang="ts">
import type { Arrival } from '~~/core/letterbox/arrival'

/** What somebody handed in, waiting in the trough: to be dragged where it belongs, or put away. */
const props = defineProps<{ arrival: Arrival }>()
const arrivals = useArrivals()
const selection = useSelection()
const ids = computed(() => props.arrival.files.flatMap(({ id }) => id ?? []))
const what = computed(() => {
  const [first, ...others] = props.arrival.files
  return others.length ? `${first!.fileName} and ${counted(others.length, 'more')}` : first!.fileName
})
const carried = () => ({ carried: { things: { files: ids.value, folders: [] } } })
</script>

<template>
  <li v-drag="carried" class="arrival">
    <span class="words">
      <NuxtLink :to="`/desk/letterbox?at=${arrival.id}`" draggable="false" :title="what">{{ what }}</NuxtLink>
      <span :title="arrival.email">from {{ arrival.name }}</span>
    </span>
    <VBtn
      :aria-label="`Put away what ${arrival.name} handed in`"
      title="Done with it: it stays in its folder"
      @click="selection.attempt(() => arrivals.putAway(arrival.id, true))"
    >
      Put away
    </VBtn>
  </li>
</template>

<style scoped>
/* The rest is the trough's own, as of all that lies in it. */
.arrival {
  border-left: 4px solid var(--straw);
  cursor: grab;
}
.words {
  display: grid;
  line-height: 1.25;
  max-width: 220px;
  font-size: 12px;
}
.words > * {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.words a {
  color: var(--ink);
  font-weight: 600;
  text-decoration: none;
}
.words a:hover {
  text-decoration: underline;
}
</style>
