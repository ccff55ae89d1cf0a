<script setup lang="ts">
import { TOGETHER, weekTable } from '~~/core/tally/week'

/** On which weekdays and at which hours files are taken: numbers, the more the darker. */
const props = defineProps<{ week: readonly number[] }>()
const table = computed(() => weekTable(props.week))
const most = computed(() => Math.max(1, ...table.value.flat()))
// The first of January 2024 was a Monday.
const dayWords = (day: number, weekday: 'short' | 'long') =>
  new Intl.DateTimeFormat(undefined, { weekday, timeZone: 'UTC' }).format(Date.UTC(2024, 0, 1 + day))
const shade = (count: number) => ({ background: `color-mix(in srgb, var(--water) ${Math.round((count / most.value) * 38)}%, transparent)` })
</script>

<template>
  <!-- A table that is wide is scrolled by key, too (WCAG 2.2, 2.1.1). -->
  <div class="hours" tabindex="0" role="region" aria-label="Downloads by weekday and hour">
    <VTable density="compact">
      <thead>
        <tr>
          <th scope="col">From hour</th>
          <th v-for="(_, part) in table[0]" :key="part" scope="col">{{ String(part * TOGETHER).padStart(2, '0') }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(parts, day) in table" :key="day">
          <th scope="row">
            <abbr :title="dayWords(day, 'long')">{{ dayWords(day, 'short') }}</abbr>
          </th>
          <td v-for="(count, part) in parts" :key="part" :style="shade(count)">{{ count.toLocaleString() }}</td>
        </tr>
      </tbody>
    </VTable>
  </div>
</template>

<style scoped>
.hours {
  overflow-x: auto;
}
th,
td {
  padding: 0 5px !important;
  text-align: right !important;
  font-variant-numeric: tabular-nums;
}
th:first-child {
  text-align: left !important;
}
abbr {
  text-decoration: none;
}
</style>
