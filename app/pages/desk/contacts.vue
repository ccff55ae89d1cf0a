<script setup lang="ts">
import { z } from 'zod'
import { contactItemSchema, contactRulesSchema, contactSchema, type Contact, type ContactRules } from '~~/core/contacts/contact'

/** Everyone who left an e-mail address: when, where, what they agreed to and what they took. */
const route = useRoute()
const gates = useGates()
const asking = useAsking()
const notices = useNotices()
useHead({ title: 'Contacts' })
const listSchema = z.object({ items: z.array(contactItemSchema), total: z.number() })

const q = ref('')
const gate = ref<string | null>(route.query.gate ? String(route.query.gate) : null)
const confirmed = ref<'yes' | 'no' | null>(null)
const chosen = shallowRef<Contact>()
const { problem, attempt } = useAttempt()

const { page, list, failure, filter, load, none, pages } = usePagedList(listSchema, '/contacts', () => ({
  q: q.value,
  gate: gate.value,
  confirmed: confirmed.value,
}))
onMounted(() =>
  attempt(async () => {
    rules.value = await ask(contactRulesSchema, '/contacts/rules')
    await gates.load()
  }),
)

const choose = (id: string) => attempt(async () => (chosen.value = await ask(contactSchema, `/contacts/${id}`)))
async function erase() {
  const { id, email } = chosen.value!
  const yes = await asking.ask({
    question: `Erase ${email}?`,
    detail:
      'All that is known of this address goes: when it came, what was written and agreed to, what was taken and handed in, and messages to it. ' +
      'Files that came by a letterbox go for good, unless somebody opened them to others.',
    yes: 'Erase it',
    no: 'Keep it',
  })
  if (!yes) return
  await attempt(async () => {
    await tell(`/contacts/${id}`, 'DELETE')
    chosen.value = undefined
    notices.say('It was erased. The log says that it was done.', { tone: 'works' })
    await load()
  })
}
const choices = computed(() => [{ value: null, title: 'Any gate' }, ...gates.items.map(({ id, name }) => ({ value: id, title: name }))])
const CONFIRMED = [
  { value: null, title: 'Confirmed or not' },
  { value: 'yes', title: 'Confirmed' },
  { value: 'no', title: 'Not confirmed' },
] as const
const HEADERS = [
  { title: 'Address', key: 'email', sortable: false },
  { title: 'Came', key: 'created', sortable: false },
  { title: 'Last at', key: 'last', sortable: false },
  { title: 'Took', key: 'taken', sortable: false, align: 'end' },
] as const
const rules = shallowRef<ContactRules>()
const KEPT = [
  { value: null, title: 'Kept for ever' },
  { value: 365, title: 'Kept for a year' },
  { value: 730, title: 'Kept for two years' },
  { value: 1825, title: 'Kept for five years' },
]
const keepFor = (keepDays: number | null) =>
  attempt(async () => {
    const yes =
      keepDays === null ||
      (await asking.ask({
        question: `Erase contacts of whom nothing was heard for ${keepDays === 365 ? 'a year' : `${Math.round(keepDays / 365)} years`}?`,
        detail:
          'They go with all that is known of them, now and from now on: with the files they handed in, too, unless somebody opened these to others.',
        yes: 'Erase them then',
        no: 'Keep them',
      }))
    if (yes) rules.value = await ask(contactRulesSchema, '/contacts/rules', 'PUT', { keepDays })
  })
</script>

<template>
  <MarginBoard heading="Contacts">
    <template v-if="!none" #acts>
      <a class="plain" :href="`/api/contacts/export?${filter}`" download>Save as a table (CSV)</a>
    </template>
    <p v-if="failure" class="say" role="alert">{{ failure }} <VBtn @click="load">Try again</VBtn></p>
    <VSkeletonLoader v-else-if="!list" type="list-item@10" loading-text="Reading the contacts…" />
    <div v-else-if="none" class="say empty">
      <p><b>Nobody has left an address yet.</b></p>
      <p>
        Put a gate that asks for an e-mail address on a file or folder. Who gets through stands here, with what they agreed to, word for
        word.
      </p>
      <VBtn variant="outlined" to="/desk/gates">To the gates</VBtn>
    </div>
    <div v-if="list && !none" class="bar">
      <VTextField v-model="q" type="search" placeholder="Part of an address, or of what they wrote" aria-label="Find a contact" />
      <VSelect v-model="gate" :items="choices" aria-label="Which gate" />
      <VSelect :model-value="rules?.keepDays ?? null" :items="KEPT" aria-label="How long contacts are kept" @update:model-value="keepFor" />
      <VSelect v-model="confirmed" :items="[...CONFIRMED]" aria-label="Confirmed or not" />
    </div>
    <template v-if="list && !none" #list>
      <VDataTable :headers="HEADERS" :items="list.items" item-value="id" :items-per-page="-1">
        <template #item="{ item }">
          <tr :class="{ chosen: item.id === chosen?.id }" @click="choose(item.id)">
            <td>
              <VBtn color="ink" class="email" :aria-pressed="item.id === chosen?.id" @click.stop="choose(item.id)">{{ item.email }}</VBtn>
              <span v-if="item.unsubscribed" class="side">wants no messages</span>
              <span v-else-if="item.confirmed" class="side">confirmed</span>
            </td>
            <td class="when">{{ shortDate(item.created) }}</td>
            <td>{{ item.last }}</td>
            <td class="number">{{ item.taken.toLocaleString() }}</td>
          </tr>
        </template>
        <template #no-data>Nobody like that.</template>
      </VDataTable>
      <p class="foot">
        {{ counted(list.total, 'contact') }}
        <VPagination v-if="pages > 1" v-model="page" :length="pages" :total-visible="5" />
      </p>
    </template>
    <template v-if="chosen" #margin>
      <section class="particulars" :aria-label="`What is known of ${chosen.email}`">
        <h2>{{ chosen.email }}</h2>
        <p>
          Since {{ longDate(chosen.created) }}.
          {{ chosen.confirmed ? `Confirmed on ${longDate(chosen.confirmed)}.` : 'Not confirmed.' }}
          <template v-if="chosen.unsubscribed">Wants no messages since {{ longDate(chosen.unsubscribed) }}.</template>
        </p>
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
        <article v-for="(admission, index) in chosen.admissions" :key="index">
          <h3>{{ admission.gateName }}, {{ longDate(admission.at) }}</h3>
          <dl v-if="admission.answers.length">
            <template v-for="answer in admission.answers" :key="answer.label"
              ><dt>{{ answer.label }}</dt>
              <dd>{{ answer.value }}</dd></template
            >
          </dl>
          <p v-if="admission.consent" class="said">Agreed: “{{ admission.consent }}”</p>
          <p v-if="admission.terms" class="said">
            Accepted
            <template v-if="admission.terms.file">“{{ admission.terms.file.title }}”, edition {{ admission.terms.file.edition }}</template>
            <template v-if="admission.terms.file && admission.terms.text"> and </template>
            <template v-if="admission.terms.text">“{{ admission.terms.text }}”</template>
          </p>
        </article>
        <h3>{{ chosen.takes.length ? 'Took' : 'Has taken nothing yet' }}</h3>
        <ul v-if="chosen.takes.length">
          <li v-for="(take, index) in chosen.takes" :key="index">
            <NuxtLink v-if="take.title" :to="`/desk/files/${take.fileId}`">{{ take.title }}</NuxtLink><template v-else
              >A file that is gone</template
            >, {{ longDate(take.at) }}
          </li>
        </ul>
        <VBtn color="clay" @click="erase">Erase…</VBtn>
      </section>
    </template>
  </MarginBoard>
</template>

<style scoped>
td.number {
  text-align: right;
}
.side {
  color: var(--soft);
}
h3 {
  font-size: 13px;
  font-weight: 650;
}
article {
  border-top: 1px solid var(--line);
  padding-top: 8px;
  display: grid;
  gap: 4px;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 10px;
  margin: 0;
}
dt {
  color: var(--soft);
}
dd {
  margin: 0;
  white-space: pre-line;
  overflow-wrap: anywhere;
}
.said {
  white-space: pre-line;
}
ul {
  margin: 0;
  padding-left: 18px;
}
</style>
