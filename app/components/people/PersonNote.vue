<script setup lang="ts">
import type { PersonItem } from '~~/core/people/person'
import type { Holder } from '~~/core/rights/rights'

/** The particulars of somebody who works at the desk, in the margin. */
const props = defineProps<{ person: PersonItem }>()
const emit = defineEmits<{ gone: [] }>()
const people = usePeople()
const rights = useRights()
const notices = useNotices()
const asking = useAsking()
const { problem, attempt } = useAttempt()
const own = computed(() => props.person.id === rights.account?.id)
const called = computed(() => props.person.name || props.person.email)

const saveRights = (holder: Holder) => attempt(() => people.change(props.person, { rights: holder }))

async function letGo() {
  const invited = props.person.state === 'invited'
  const yes = await asking.ask({
    question: invited ? `Take the invitation of ${called.value} back?` : `Let ${called.value} go?`,
    detail: invited
      ? 'The link in the message no longer holds.'
      : 'They are signed out at once. What they did stays, and so does the log of it.',
    yes: invited ? 'Take it back' : 'Let them go',
    no: 'Keep them',
  })
  if (!yes || !(await attempt(() => people.letGo(props.person)))) return
  notices.say(invited ? 'The invitation is taken back.' : `${called.value} no longer works here.`)
  emit('gone')
}
async function again() {
  if (await attempt(() => people.inviteAgain(props.person)))
    notices.say(`A new link to ${props.person.email} is in the outbox.`, { tone: 'works' })
}
async function endSessions() {
  if (await attempt(() => people.endSessions(props.person))) notices.say(`${called.value} is signed out everywhere.`)
}
</script>

<template>
  <section class="particulars" :aria-label="called">
    <h2>{{ called }}</h2>
    <p v-if="person.name" class="hint">{{ person.email }}</p>
    <p v-if="person.state === 'invited'">Asked on {{ longDate(person.created) }}. The link holds until {{ longDate(person.until!) }}.</p>
    <p v-else>Here since {{ longDate(person.created) }}. {{ person.secondFactor ? 'Signs in with one-time codes, too.' : '' }}</p>
    <VTextField
      label="Name"
      maxlength="120"
      :model-value="person.name"
      placeholder="what you call them"
      @change="attempt(() => people.change(person, { name: $event.target.value }))"
    />
    <template v-if="own">
      <p>This is you. What you may do, another owner can change.</p>
    </template>
    <RightsFields v-else :key="person.id" :model-value="person.rights" @update:model-value="saveRights" />
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div v-if="!own" class="acts">
      <template v-if="person.state === 'invited'">
        <VBtn variant="outlined" @click="again">Send it once more</VBtn>
        <VBtn to="/desk/outbox">To the outbox</VBtn>
      </template>
      <template v-else>
        <VBtn v-if="person.used" @click="endSessions">Sign them out everywhere</VBtn>
        <VBtn :to="`/desk/setup/log?who=${encodeURIComponent(person.email)}`">What they did</VBtn>
      </template>
      <VBtn color="clay" @click="letGo">{{ person.state === 'invited' ? 'Take it back…' : 'Let them go…' }}</VBtn>
    </div>
  </section>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
</style>
