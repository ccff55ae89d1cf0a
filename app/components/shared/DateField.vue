<script setup lang="ts">
/** A day, typed or picked from a calendar: "2026-12-01", or empty. */
const day = defineModel<string>({ required: true })
const two = (number: number) => String(number).padStart(2, '0')

/** The day as the calendar has it, by the clock of this computer; a day has no time zone. */
function take(date: unknown) {
  day.value = date instanceof Date ? `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}` : ''
}
</script>

<template>
  <VDateInput :model-value="day ? `${day}T12:00:00` : null" @update:model-value="take" />
</template>
