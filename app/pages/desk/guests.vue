<script setup lang="ts">
import { z } from 'zod'
import { groupSchema, guestItemSchema } from '~~/core/guests/guest'
import { readGuests } from '~~/core/guests/written'

/** Who gets through gates by name, and the groups they are in. */
const guests = useGuests()
const asking = useAsking()
const notices = useNotices()
useHead({ title: 'Guests' })
const listSchema = z.object({ items: z.array(guestItemSchema), total: z.number() })

const q = ref('')
const group = ref<string | null>(null)
const chosenId = ref('')
const { problem, attempt } = useAttempt()

const { page, list, failure, load, none, pages } = usePagedList(listSchema, '/guests', () => ({ q: q.value, group: group.value }))
const chosen = computed(() => list.value?.items.find(({ id }) => id === chosenId.value))
onMounted(() => attempt(guests.load))

const adding = ref(false)
const written = ref('')
const into = ref<string[]>([])
const read = computed(() => readGuests(written.value))
async function add() {
  await attempt(async () => {
    const ids = await guests.add({ guests: read.value.guests, groups: into.value })
    notices.say(`${counted(ids.length, 'person', 'people')} can come now.`, { tone: 'works' })
    written.value = read.value.unread.join('\n')
    adding.value = !!written.value
    await load()
  })
}

const naming = ref(false)
const newGroup = useForm({
  schema: groupSchema,
  begin: () => ({ name: '' }),
  send: async ({ name }) => {
    group.value = (await guests.addGroup(name)).id
    naming.value = false
  },
})
const opened = computed(() => (group.value ? guests.byId.get(group.value) : undefined))
async function removeGroup() {
  const { name } = opened.value!
  const yes = await asking.ask({
    question: `Take the group “${name}” away?`,
    detail: 'Who is in it stays a guest. Gates that let the group through let it through no more.',
    yes: 'Take it away',
    no: 'Leave it',
  })
  if (!yes) return
  await attempt(async () => {
    await guests.removeGroup(opened.value!)
    group.value = null
    await load()
  })
}

const change = (changed: object) =>
  attempt(async () => {
    await tell(`/guests/${chosenId.value}`, 'PATCH', changed)
    await guests.changed()
    await load()
  })
async function erase() {
  const { email } = chosen.value!
  const yes = await asking.ask({
    question: `Erase ${email}?`,
    detail: 'They get through no gate any more, and what they took is forgotten.',
    yes: 'Erase them',
    no: 'Keep them',
  })
  if (!yes) return
  await attempt(async () => {
    await guests.remove(chosen.value!)
    await load()
  })
}
const choices = computed(() =>
  guests.groups.map(({ id, name, members }) => ({ value: id, title: name, props: { subtitle: counted(members, 'person', 'people') } })),
)
const filters = computed(() => [{ value: null, title: 'All guests' }, ...choices.value])
const HEADERS = [
  { title: 'Who', key: 'email', sortable: false },
  { title: 'Groups', key: 'groups', sortable: false },
  { title: 'Came', key: 'came', sortable: false },
] as const
</script>

<template>
  <MarginBoard heading="Guests">
    <template #acts>
      <VBtn @click="naming = !naming">New group</VBtn>
      <VBtn variant="outlined" @click="adding = !adding">Put people in</VBtn>
    </template>
    <VForm v-if="naming" class="new" @submit.prevent="newGroup.submit" @keydown.esc="newGroup.leave(() => (naming = false))">
      <VTextField v-focus v-bind="newGroup.field('name')" label="Name of the group" maxlength="120" placeholder="Hollow Lane School" />
      <p v-if="newGroup.problem.value" class="problem" role="alert">{{ newGroup.problem.value }}</p>
      <div class="acts">
        <VBtn type="submit" variant="outlined" :loading="newGroup.busy.value">Make it</VBtn><VBtn @click="naming = false">Cancel</VBtn>
      </div>
    </VForm>
    <VForm v-if="adding" class="new" @submit.prevent="add">
      <VTextarea
        v-model="written"
        v-focus
        label="Addresses, one a line"
        rows="3"
        auto-grow
        max-rows="12"
        placeholder="Wheel Works <office@wheel-works.example>"
      />
      <VAutocomplete v-if="choices.length" v-model="into" label="Into groups" :items="choices" multiple chips closable-chips />
      <p v-if="read.unread.length" class="hint">Not read: {{ read.unread.slice(0, 5).join('; ') }}</p>
      <div class="acts">
        <VBtn type="submit" variant="outlined" :disabled="!read.guests.length">
          {{ read.guests.length ? `Put ${counted(read.guests.length, 'person', 'people')} in` : 'Put them in' }}</VBtn><VBtn
          @click="adding = false"
          >Cancel</VBtn
        >
      </div>
    </VForm>
    <p v-if="failure" class="say" role="alert">{{ failure }} <VBtn @click="load">Try again</VBtn></p>
    <p v-if="problem" class="say problem" role="alert">{{ problem }}</p>
    <VSkeletonLoader v-if="!list && !failure" type="list-item@10" loading-text="Reading the guests…" />
    <div v-else-if="none && !adding" class="say empty">
      <p><b>Nobody comes by name yet.</b></p>
      <p>
        A gate can let named people through, single ones or groups. They write their address into its form, and a link comes to it: nobody
        has to remember a password.
      </p>
      <VBtn variant="outlined" @click="adding = true">Put people in</VBtn>
    </div>
    <div v-if="list && !none" class="bar">
      <VTextField v-model="q" type="search" placeholder="Part of a name or address" aria-label="Find a guest" />
      <VSelect v-model="group" :items="filters" aria-label="Which group" />
      <VBtn v-if="opened" color="clay" @click="removeGroup">Take this group away…</VBtn>
    </div>
    <template v-if="list && !none" #list>
      <VDataTable :headers="HEADERS" :items="list.items" item-value="id" :items-per-page="-1">
        <template #item="{ item }">
          <tr :class="{ chosen: item.id === chosenId }" @click="chosenId = item.id">
            <td>
              <VBtn color="ink" :aria-pressed="item.id === chosenId" @click.stop="chosenId = item.id"
                ><b>{{ item.name || item.email }}</b></VBtn
              >
              <span v-if="item.name" class="side">{{ item.email }}</span>
            </td>
            <td>{{ item.groups.flatMap(id => guests.byId.get(id)?.name ?? []).join(', ') }}</td>
            <td class="when">{{ item.came ? shortDate(item.came) : 'not yet' }}</td>
          </tr>
        </template>
        <template #no-data>Nobody like that.</template>
      </VDataTable>
      <p class="foot">
        {{ counted(list.total, 'guest') }}
        <VPagination v-if="pages > 1" v-model="page" :length="pages" :total-visible="5" />
      </p>
    </template>
    <template v-if="chosen" #margin>
      <section class="particulars" :aria-label="chosen.email">
        <h2>{{ chosen.email }}</h2>
        <p>
          A guest since {{ longDate(chosen.created) }}.
          {{ chosen.came ? `Came in last on ${longDate(chosen.came)}.` : 'Has not come yet.' }}
        </p>
        <VTextField
          :key="chosen.id"
          label="Name"
          maxlength="120"
          :model-value="chosen.name"
          @change="change({ name: ($event.target as HTMLInputElement).value })"
        />
        <VAutocomplete
          label="Groups"
          :items="choices"
          :model-value="chosen.groups"
          multiple
          chips
          closable-chips
          @update:model-value="change({ groups: $event })"
        />
        <p v-if="chosen.password">
          Comes in by a password of their own. <VBtn @click="change({ password: false })">Forget it: they come by a link</VBtn>
        </p>
        <div><VBtn color="clay" @click="erase">Erase…</VBtn></div>
      </section>
    </template>
  </MarginBoard>
</template>

<style scoped>
.side {
  display: block;
  padding-bottom: 6px;
  color: var(--soft);
  overflow-wrap: anywhere;
}
</style>
