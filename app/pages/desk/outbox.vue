<script setup lang="ts">
import { z } from 'zod'
import { messageItemSchema, messageSchema, type Message, type MessageItem, type MessageState } from '~~/core/outbox/message'
import { mailStateSchema, type MailState } from '~~/core/outbox/mailSettings'

/** Every message Trough wrote: sent where there is a mail service, readable in any case. */
useHead({ title: 'Outbox' })
const session = useSession()
const listSchema = z.object({ items: z.array(messageItemSchema), total: z.number() })
const PER_PAGE = 50
const page = ref(1)
const list = shallowRef<{ items: MessageItem[]; total: number }>()
const mail = shallowRef<MailState>()
const chosen = shallowRef<Message>()
const failure = ref('')
const settingUp = ref(false)
const { problem, attempt } = useAttempt()

async function load() {
  failure.value = ''
  try {
    mail.value = await ask(mailStateSchema, '/mail')
    list.value = await ask(listSchema, `/outbox?from=${(page.value - 1) * PER_PAGE}&limit=${PER_PAGE}`)
  } catch (error) {
    failure.value = wordsOf(error)
  }
}
onMounted(load)
watch(page, load)
// Messages leave by themselves.
useIntervalFn(() => void load(), 10_000)

const choose = (id: string) => attempt(async () => (chosen.value = await ask(messageSchema, `/outbox/${id}`)))
async function act(path: string, method: 'POST' | 'DELETE') {
  await attempt(async () => {
    await tell(path, method)
    if (method === 'DELETE') chosen.value = undefined
    await load()
    if (chosen.value) await choose(chosen.value.id)
  })
}
const WORDS: Record<MessageState, string> = {
  waiting: 'waits',
  sending: 'is on its way',
  sent: 'sent',
  failed: 'was not taken',
  unsure: 'may have arrived',
}
const wordsFor = ({ state }: MessageItem) => (state === 'waiting' && !mail.value?.smtp ? 'kept here' : WORDS[state])
/** The message as its receiver reads it, apart from the desk: nothing in it runs, and its links open beside. */
const framed = computed(() => {
  const html = chosen.value?.html.replace('<head>', '<head><base target="_blank">') ?? ''
  // Its links can be tried before the site stands at its own address.
  const { address } = session.site
  return address ? html.replaceAll(`href="${address}/`, `href="${location.origin}/`) : html
})
const HEADERS = [
  { title: 'To', key: 'to', sortable: false },
  { title: 'Subject', key: 'subject', sortable: false },
  { title: 'Written', key: 'created', sortable: false },
  { title: 'State', key: 'state', sortable: false },
] as const
</script>

<template>
  <MarginBoard heading="Outbox">
    <template #acts><VBtn v-if="mail" variant="outlined" @click="settingUp = !settingUp">How messages are sent</VBtn></template>
    <p v-if="failure" class="say" role="alert">{{ failure }} <VBtn @click="load">Try again</VBtn></p>
    <VSkeletonLoader v-else-if="!list || !mail" type="list-item@8" loading-text="Reading the outbox…" />
    <template v-else>
      <p v-if="!mail.smtp && !settingUp" class="say kept">
        No mail service is set up: messages are kept here. Open one to see it as its receiver would, and press its links.
        <VBtn @click="settingUp = true">Set one up</VBtn>
      </p>
      <MailForm v-if="settingUp" :mail="mail" @close="settingUp = false" @saved="load" />
      <p v-if="!list.total" class="say">
        Nothing was written yet. Messages come from gates that ask for an e-mail address, and from personal links.
      </p>
    </template>
    <template v-if="list?.total && mail" #list>
      <VDataTable :headers="HEADERS" :items="list.items" item-value="id" :items-per-page="-1">
        <template #item="{ item }">
          <tr :class="{ chosen: item.id === chosen?.id }" @click="choose(item.id)">
            <td>
              <VBtn color="ink" class="to" :aria-pressed="item.id === chosen?.id" @click.stop="choose(item.id)">{{ item.to }}</VBtn>
            </td>
            <td>{{ item.subject }}</td>
            <td class="when">{{ shortDate(item.created) }}</td>
            <td :class="{ fault: item.state === 'failed' || item.state === 'unsure' }">{{ wordsFor(item) }}</td>
          </tr>
        </template>
      </VDataTable>
      <VPagination v-if="list.total > PER_PAGE" v-model="page" :length="Math.ceil(list.total / PER_PAGE)" :total-visible="5" />
    </template>
    <template v-if="chosen" #margin>
      <section class="particulars" :aria-label="`The message ${chosen.subject}`">
        <h2>{{ chosen.subject }}</h2>
        <p>To {{ chosen.to }}, {{ longDate(chosen.created) }}: {{ wordsFor(chosen) }}.</p>
        <p v-if="chosen.error" class="fault">{{ chosen.error }}</p>
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
        <iframe title="The message as it is read" sandbox="allow-popups allow-popups-to-escape-sandbox" :srcdoc="framed" />
        <FoldSection heading="As text">
          <pre>{{ chosen.text }}</pre>
        </FoldSection>
        <div class="acts">
          <VBtn
            v-if="chosen.state === 'failed' || chosen.state === 'unsure'"
            variant="outlined"
            @click="act(`/outbox/${chosen.id}/again`, 'POST')"
          >
            Send it again
          </VBtn>
          <VBtn color="clay" @click="act(`/outbox/${chosen.id}`, 'DELETE')">Delete</VBtn>
        </div>
      </section>
    </template>
  </MarginBoard>
</template>

<style scoped>
.kept {
  background: #f7efd6;
  border-left: 4px solid var(--straw);
}
iframe {
  width: 100%;
  height: 380px;
  border: 1px solid var(--line);
  background: #fff;
}
pre {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  margin: 0;
}
</style>
