<script setup lang="ts">
/** Asks for a time at which something shall happen by itself. */
const props = defineProps<{ label: string; act: (at: string) => Promise<unknown> }>()
const emit = defineEmits<{ done: []; close: [] }>()
const { timeZone } = useSession().site
const at = ref(tomorrowMorning())
const busy = ref(false)
const { problem, attempt } = useAttempt()

/** Eight o'clock on the next day, where the site is. */
function tomorrowMorning(): string {
  const [day, month, year] = new Intl.DateTimeFormat('en-GB', { timeZone, day: '2-digit', month: '2-digit', year: 'numeric' })
    .format(Date.now() + 24 * 60 * 60 * 1000)
    .split('/')
  return `${year}-${month}-${day}T08:00`
}

async function set() {
  busy.value = true
  if (await attempt(() => props.act(at.value))) emit('done')
  busy.value = false
}
</script>

<template>
  <form class="set-time" @submit.prevent="set" @keydown.esc.stop="emit('close')">
    <VTextField v-model="at" v-focus :label="label" type="datetime-local" required />
    <p class="hint">
      As clocks show it in {{ timeZone.replaceAll('_', ' ') }}, summer time and all. <NuxtLink to="/desk/setup">Change the zone</NuxtLink>
    </p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div class="acts"><VBtn type="submit" variant="outlined" :disabled="busy">Set it</VBtn><VBtn @click="emit('close')">Not yet</VBtn></div>
  </form>
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
</style>
