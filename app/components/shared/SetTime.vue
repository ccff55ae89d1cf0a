<script setup lang="ts">
import { setTimeSchema } from '~~/core/timetable/setTime'

/** Asks for a time at which something shall happen by itself. */
const props = defineProps<{ label: string; act: (at: string) => Promise<unknown> }>()
const emit = defineEmits<{ done: []; close: [] }>()
const { timeZone } = useSession().site

/** The next day, where the site is. */
function tomorrow(): string {
  const [day, month, year] = new Intl.DateTimeFormat('en-GB', { timeZone, day: '2-digit', month: '2-digit', year: 'numeric' })
    .format(Date.now() + 24 * 60 * 60 * 1000)
    .split('/')
  return `${year}-${month}-${day}`
}

const { field, submit, problem, busy, leave } = useForm({
  schema: setTimeSchema,
  begin: () => ({ day: tomorrow(), time: '08:00' }),
  send: async ({ day, time }) => {
    await props.act(`${day}T${time}`)
    emit('done')
  },
})
</script>

<template>
  <VForm class="set-time" :aria-label="label" @submit.prevent="submit" @keydown.esc.stop="leave(() => emit('close'))">
    <b>{{ label }}</b>
    <div class="when">
      <DateField v-focus v-bind="field('day')" label="Day" />
      <VTextField v-bind="field('time')" label="Time" type="time" />
    </div>
    <p class="hint">
      As clocks show it in {{ timeZone.replaceAll('_', ' ') }}, summer time and all. <NuxtLink to="/desk/setup">Change the zone</NuxtLink>
    </p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div class="acts"><VBtn type="submit" variant="outlined" :loading="busy">Set it</VBtn><VBtn @click="emit('close')">Not yet</VBtn></div>
  </VForm>
</template>

<style scoped>
.set-time {
  display: grid;
  gap: 6px;
  padding: 8px 10px;
  background: #f1f6f5;
  border-left: 3px solid var(--straw);
  justify-items: start;
}
.when {
  display: grid;
  grid-template-columns: 150px 110px;
  gap: 10px;
}
</style>
