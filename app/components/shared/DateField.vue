<script setup lang="ts">
import { mdiCalendarOutline } from '@mdi/js'
import { isDay } from '~~/core/timetable/setTime'

/** A day, typed or picked from a calendar: "2026-12-01", or empty. */
const day = defineModel<string>({ required: true })
const open = ref(false)
const two = (number: number) => String(number).padStart(2, '0')
const picked = computed(() => (isDay(day.value) ? new Date(`${day.value}T12:00:00`) : undefined))

/** The day as the calendar has it, by the clock of this computer; a day has no time zone. */
function take(date: unknown) {
  if (date instanceof Date) day.value = `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`
  open.value = false
}
</script>

<template>
  <VTextField v-model="day" maxlength="10" placeholder="yyyy-mm-dd">
    <template #append-inner>
      <VMenu v-model="open" location="bottom start" :close-on-content-click="false">
        <template #activator="{ props: activator }">
          <VBtn v-bind="activator" color="soft" class="calendar" aria-label="Choose from a calendar" title="Choose from a calendar">
            <VIcon :icon="mdiCalendarOutline" size="17" />
          </VBtn>
        </template>
        <VDatePicker :model-value="picked" @update:model-value="take" />
      </VMenu>
    </template>
  </VTextField>
</template>

<style scoped>
.calendar {
  margin-right: -6px;
}
</style>
