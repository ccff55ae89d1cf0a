<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import type { GateItem, GateRule } from '~~/core/gate/gate'
import type { GuestItem } from '~~/core/guests/guest'
import { readGuests } from '~~/core/guests/written'

/** Whom a gate lets through by name: groups, and single people. */
const props = defineProps<{ gate: GateItem }>()
const emit = defineEmits<{ set: [part: Partial<GateRule>] }>()
const guests = useGuests()
const { problem, attempt } = useAttempt()
const named = shallowRef<GuestItem[]>([])
const written = ref('')
const rule = computed(() => props.gate.rule)

onMounted(() => attempt(guests.load))
watch(
  () => rule.value.guests,
  (now, before) => JSON.stringify(now) !== JSON.stringify(before) && attempt(async () => (named.value = await guests.some(now))),
  { immediate: true },
)
const groups = computed(() =>
  guests.groups.map(({ id, name, members }) => ({ value: id, title: `${name}, ${counted(members, 'person', 'people')}` })),
)
const chosen = computed(() => rule.value.groups.filter(id => guests.byId.has(id)))

async function add() {
  const { guests: given, unread } = readGuests(written.value)
  if (!given.length) {
    problem.value = 'Write an e-mail address, such as me@example.com.'
    return
  }
  await attempt(async () => {
    const ids = await guests.add({ guests: given, groups: [] })
    emit('set', { guests: [...new Set([...rule.value.guests, ...ids])] })
    written.value = unread.join('\n')
  })
}
</script>

<template>
  <section aria-labelledby="people-head">
    <h2 id="people-head">{{ gate.admits ? `${counted(gate.admits, 'person', 'people')} may pass` : 'Whom it lets through' }}</h2>
    <VAutocomplete
      v-if="groups.length"
      label="Groups"
      :items="groups"
      :model-value="chosen"
      multiple
      chips
      closable-chips
      @update:model-value="emit('set', { groups: $event })"
    />
    <ul v-if="named.length">
      <li v-for="guest in named" :key="guest.id">
        <span
          ><b>{{ guest.name || guest.email }}</b
          ><span v-if="guest.name" class="hint">{{ guest.email }}</span></span
        >
        <VBtn :aria-label="`No longer: ${guest.email}`" @click="emit('set', { guests: rule.guests.filter(id => id !== guest.id) })"
          ><VIcon :icon="mdiClose" size="16"
        /></VBtn>
      </li>
    </ul>
    <VForm class="add" @submit.prevent="add">
      <VTextarea
        v-model="written"
        label="Somebody more"
        rows="1"
        auto-grow
        placeholder="me@example.com"
        hint="One a line; a name may stand before the address."
        persistent-hint
      />
      <VBtn type="submit" variant="outlined" :disabled="!written.trim()">Let them through</VBtn>
    </VForm>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <p class="hint">They write their address into the form, and a link comes to it that lets them in once, for 15 minutes.</p>
    <NuxtLink to="/desk/guests">All guests and groups</NuxtLink>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  min-height: 32px;
  border-bottom: 1px solid var(--line);
}
li span {
  min-width: 0;
  overflow-wrap: anywhere;
}
li .hint {
  display: block;
}
.add {
  display: grid;
  gap: 8px;
  justify-items: start;
}
.add > .v-input {
  width: 100%;
}
</style>
