<script setup lang="ts">
import { invitationSchema } from '~~/core/people/person'
import { readyRights } from '~~/core/rights/ready'
import type { Holder } from '~~/core/rights/rights'

/** Who works at the desk, what each of them may do, and who was asked to come. */
const people = usePeople()
const notices = useNotices()
const route = useRoute()
const failure = ref('')
const inviting = ref(false)
useHead({ title: 'People' })

const chosen = computed(() => people.items.find(({ id }) => id === route.query.at) ?? people.items[0])
const choose = (id: string) => navigateTo({ query: { at: id } }, { replace: true })
const HEADERS = [
  { title: 'Who', key: 'name', sortable: false },
  { title: 'May', key: 'may', sortable: false },
  { title: 'Was here', key: 'used', sortable: false },
] as const

const holder = ref<Holder>(readyRights('puts', null))
const { field, submit, problem, busy, reset, leave } = useForm({
  schema: invitationSchema.pick({ email: true }),
  begin: () => ({ email: '' }),
  send: async ({ email }) => {
    const made = await people.invite({ email, name: '', rights: holder.value })
    inviting.value = false
    notices.say(`A message to ${email} is in the outbox.`, {
      tone: 'works',
      action: { label: 'Show it', run: () => navigateTo('/desk/outbox') },
    })
    await choose(made.id)
  },
})
function open() {
  reset()
  holder.value = readyRights('puts', null)
  inviting.value = true
}

async function load() {
  failure.value = ''
  try {
    await people.load()
  } catch (error) {
    failure.value = wordsOf(error)
  }
}
onMounted(load)
const alone = computed(() => people.loaded && people.items.length === 1)
</script>

<template>
  <MarginBoard heading="People">
    <template #acts><VBtn variant="outlined" @click="open">Invite somebody</VBtn></template>
    <VForm v-if="inviting" class="new" @submit.prevent="submit" @keydown.esc="leave(() => (inviting = false))">
      <VTextField v-focus v-bind="field('email')" label="Their e-mail address" type="email" autocomplete="off" />
      <RightsFields v-model="holder" />
      <p class="hint">They get a message with a link, and choose a password of their own. It holds for a week.</p>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="acts"><VBtn type="submit" variant="flat" :loading="busy">Invite</VBtn><VBtn @click="inviting = false">Cancel</VBtn></div>
    </VForm>
    <p v-if="failure" class="say" role="alert">{{ failure }} <VBtn @click="load">Try again</VBtn></p>
    <VSkeletonLoader v-else-if="!people.loaded" type="list-item-two-line@3" loading-text="Reading who is here…" />
    <p v-if="alone && !inviting" class="say">
      You are alone here. A helper who is invited may do what you choose: put files into one folder, write pages, or everything but this.
    </p>
    <template v-if="people.loaded" #list>
      <VDataTable :headers="HEADERS" :items="people.items" item-value="id" :items-per-page="-1">
        <template #item="{ item }">
          <tr :class="{ chosen: item.id === chosen?.id }" @click="choose(item.id)">
            <td>
              <VBtn color="ink" :aria-pressed="item.id === chosen?.id" @click.stop="choose(item.id)"
                ><b>{{ item.name || item.email }}</b></VBtn
              >
              <span v-if="item.name" class="side">{{ item.email }}</span>
            </td>
            <td>{{ rightsInShort(item.rights) }}</td>
            <td class="when">{{ item.state === 'invited' ? 'invited' : item.used ? shortDate(item.used) : 'signed in nowhere' }}</td>
          </tr>
        </template>
      </VDataTable>
    </template>
    <template v-if="chosen" #margin><PersonNote :key="chosen.id" :person="chosen" @gone="choose('')" /></template>
  </MarginBoard>
</template>

<style scoped>
.side {
  display: block;
  padding-bottom: 6px;
  color: var(--soft);
  overflow-wrap: anywhere;
}
td.when {
  white-space: nowrap !important;
}
.new .hint {
  margin: 0;
}
</style>
