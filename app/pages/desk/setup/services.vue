<script setup lang="ts">
import { z } from 'zod'
import {
  HOOK_EVENTS,
  hookItemSchema,
  hookMessageSchema,
  madeHookSchema,
  newHookSchema,
  type HookEvent,
  type HookItem,
  type HookMessage,
} from '~~/core/hooks/hook'

/** Other services that are told what happens here, each message signed. */
useHead({ title: 'Setup: other services' })
const asking = useAsking()
const hooks = ref<HookItem[]>()
const messages = shallowRef<HookMessage[]>([])
const opened = ref('')
/** secrets that were just made: nobody can read them later */
const secrets = ref<Record<string, string>>({})
const { problem, attempt } = useAttempt()
const listSchema = z.object({ items: z.array(hookItemSchema) })
const messagesSchema = z.object({ items: z.array(hookMessageSchema) })
const EVENT_WORDS: Record<HookEvent, string> = {
  'contact.left': 'somebody left an address',
  'file.downloaded': 'a file was downloaded',
}
const toldWhen = ({ events }: HookItem) => events.map(event => EVENT_WORDS[event]).join(', or ')
const CHOICES = HOOK_EVENTS.map(value => ({ value, title: EVENT_WORDS[value] }))

async function load() {
  await attempt(async () => {
    hooks.value = (await ask(listSchema, '/hooks')).items
    if (opened.value) messages.value = (await ask(messagesSchema, `/hooks/${opened.value}/messages`)).items
  })
}
onMounted(load)
// Messages leave by themselves.
useIntervalFn(() => void load(), 5000)

const adding = ref(false)
const {
  fields,
  field,
  submit,
  problem: refusal,
  busy,
  reset,
  leave,
} = useForm({
  schema: newHookSchema,
  begin: () => ({ address: '', events: [] as HookEvent[] }),
  send: async given => {
    const made = await ask(madeHookSchema, '/hooks', 'POST', given)
    secrets.value[made.id] = made.secret
    adding.value = false
    reset()
    await load()
  },
})
const act = (path: string, method: 'POST' | 'PATCH' | 'DELETE', body?: object) =>
  attempt(async () => {
    await tell(path, method, body)
    await load()
  })
async function renew({ id }: HookItem) {
  const yes = await asking.ask({
    question: 'Make another secret?',
    detail: 'What is sent from then on is signed with it: the service has to know it first.',
    yes: 'Make another',
    no: 'Keep the one there is',
  })
  if (yes) await attempt(async () => (secrets.value[id] = (await ask(madeHookSchema, `/hooks/${id}/secret`, 'POST')).secret))
}
async function remove({ id, address }: HookItem) {
  const yes = await asking.ask({
    question: `Tell ${address} nothing any more?`,
    detail: 'What is still waiting for it is not sent.',
    yes: 'Take it off',
    no: 'Keep it',
  })
  if (yes) await act(`/hooks/${id}`, 'DELETE')
}
async function trySending({ id }: HookItem) {
  await act(`/hooks/${id}/try`, 'POST')
  if (opened.value !== id) await open(id)
}
async function open(id: string) {
  opened.value = opened.value === id ? '' : id
  messages.value = []
  await load()
}
const stateWords = ({ state, tries, next }: HookMessage) =>
  state === 'sent'
    ? 'sent'
    : state === 'failed'
      ? `not taken, tried ${counted(tries, 'time')}`
      : tries
        ? `again at ${longDate(next!)}`
        : 'is about to be sent'
const HEADERS = [
  { title: 'When', key: 'created', sortable: false },
  { title: 'Of', key: 'event', sortable: false },
  { title: 'State', key: 'state', sortable: false },
] as const
</script>

<template>
  <section aria-labelledby="services-head">
    <h2 id="services-head">Other services</h2>
    <p>
      A mail service or a list of customers can be told when somebody left an address, or took a file. Each message is signed by the
      Standard Webhooks specification, and sent again until it is taken.
    </p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <VForm v-if="adding" class="adding" @submit.prevent="submit" @keydown.esc="leave(() => (adding = false))">
      <VTextField v-focus v-bind="field('address')" label="Its address" type="url" placeholder="https://service.example/hook" />
      <VSelect v-model="fields.events" label="It is told when" :items="CHOICES" multiple chips />
      <p v-if="refusal" class="problem" role="alert">{{ refusal }}</p>
      <div class="acts">
        <VBtn type="submit" variant="outlined" :loading="busy">Tell it</VBtn><VBtn @click="adding = false">Cancel</VBtn>
      </div>
    </VForm>
    <div v-else class="acts"><VBtn variant="outlined" @click="adding = true">Tell another service</VBtn></div>
    <article v-for="hook in hooks" :key="hook.id" :aria-label="hook.address">
      <h3 class="mono">{{ hook.address }}</h3>
      <p>
        When {{ toldWhen(hook) }}.
        <template v-if="!hook.on">It is told nothing now.</template>
        <template v-else-if="hook.waiting">{{ counted(hook.waiting, 'message') }} still to send.</template>
        <span v-if="hook.failed" class="fault">{{ counted(hook.failed, 'message') }} could not be sent.</span>
      </p>
      <CopyLine v-if="secrets[hook.id]" name="Its secret: give it to the service now, it is not shown again" :address="secrets[hook.id]!" />
      <div class="acts">
        <VBtn @click="trySending(hook)">Send a trial</VBtn>
        <VBtn :aria-expanded="opened === hook.id" @click="open(hook.id)">What it was told</VBtn>
        <VBtn @click="act(`/hooks/${hook.id}`, 'PATCH', { on: !hook.on })">{{ hook.on ? 'Pause' : 'Go on' }}</VBtn>
        <VBtn @click="renew(hook)">Another secret…</VBtn>
        <VBtn color="clay" @click="remove(hook)">Take it off…</VBtn>
      </div>
      <VDataTable v-if="opened === hook.id" :headers="HEADERS" :items="messages" item-value="id" :items-per-page="-1">
        <template #[`item.created`]="{ item }">{{ longDate(item.created) }}</template>
        <template #[`item.event`]="{ item }"
          ><span class="mono">{{ item.event }}</span></template
        >
        <template #[`item.state`]="{ item }">
          {{ stateWords(item) }}<span v-if="item.error" class="error">{{ item.error }}</span>
          <VBtn v-if="item.state === 'failed'" @click="act(`/hooks/${hook.id}/messages/${item.id}/again`, 'POST')">Try again</VBtn>
        </template>
        <template #no-data>Nothing yet.</template>
      </VDataTable>
    </article>
  </section>
</template>

<style scoped>
article {
  display: grid;
  gap: 8px;
  padding: 12px 0;
  border-top: 1px solid var(--line);
}
article > p {
  margin: 0;
}
h3 {
  font-size: 13px;
  font-weight: 600;
  overflow-wrap: anywhere;
}
.adding {
  display: grid;
  gap: 10px;
  max-width: 560px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.fault {
  color: #9a4420;
  font-weight: 600;
}
.error {
  display: block;
  color: var(--soft);
  overflow-wrap: anywhere;
}
</style>
