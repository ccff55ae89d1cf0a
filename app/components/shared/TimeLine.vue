<script setup lang="ts">
import type { TimedItem } from '~~/core/timetable/timedItem'

/** Tells of something that is set to happen, and takes it back. */
const props = defineProps<{ item: TimedItem; words: string }>()
const timetable = useTimetable()
const { problem, attempt } = useAttempt()
const moment = computed(() => momentWords(props.item.at, useSession().site.timeZone))
</script>

<template>
  <p class="time-line" :class="{ failed: item.failed }">
    <span v-if="item.failed">{{ words }} {{ moment }}: that did not happen. {{ item.failed }}</span>
    <span v-else
      >{{ words }} <b>{{ moment }}</b></span
    >
    <VBtn @click="attempt(() => timetable.drop(item.id))">
      {{ item.failed ? 'Seen' : 'Take that back' }}
    </VBtn>
    <span v-if="problem" class="problem" role="alert">{{ problem }}</span>
  </p>
</template>

<style scoped>
.time-line {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  align-items: center;
  padding: 5px 4px 5px 10px;
  border-left: 4px solid var(--straw);
  background: #fbf3dc;
  line-height: 1.4;
}
.time-line.failed {
  border-color: var(--clay);
  background: #f6e3d8;
}
</style>
