<script setup lang="ts">
import { arrivalsSchema, type Arrival } from '~~/core/letterbox/arrival'

/** Says of a file who handed it in, where it came by a letterbox. */
const props = defineProps<{ fileId: string }>()
const arrival = shallowRef<Arrival>()
const { problem, attempt } = useAttempt()
onMounted(() => attempt(async () => (arrival.value = (await ask(arrivalsSchema, `/arrivals?file=${props.fileId}&limit=1`)).items[0])))
</script>

<template>
  <p v-if="arrival" class="came">
    {{ arrival.name }} handed this in on {{ longDate(arrival.at) }}{{ arrival.answers ? `, in answer to “${arrival.answers.title}”` : '' }}.
    Only the desk has it. <NuxtLink :to="`/desk/letterbox?at=${arrival.id}`">Number {{ arrival.number }}</NuxtLink>
  </p>
  <p v-else-if="problem" class="problem" role="alert">{{ problem }}</p>
</template>

<style scoped>
.came {
  padding: 8px 10px;
  background: #f7efd6;
  border-left: 4px solid var(--straw);
  border-radius: 0 3px 3px 0;
  line-height: 1.45;
}
</style>
