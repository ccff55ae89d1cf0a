<script setup lang="ts">
import { formatSize } from '~~/core/files/size'
import { arrivalSchema, arrivalsSchema, type Arrival } from '~~/core/letterbox/arrival'

/** What visitors handed in: who, when, in answer to what; its files lie in the library, for the desk alone. */
useHead({ title: 'Letterbox' })
const route = useRoute()
const router = useRouter()
const arrivals = useArrivals()
const asking = useAsking()
const notices = useNotices()
const { problem, attempt } = useAttempt()

const q = ref('')
const waiting = ref<'yes' | null>(null)
const { page, list, failure, load, none, pages } = usePagedList(arrivalsSchema, '/arrivals', () => ({ q: q.value, waiting: waiting.value }))
const chosen = shallowRef<Arrival>()

const choose = (id: string) => router.replace({ query: { at: id } })
watch(
  () => route.query.at,
  async at => {
    if (!at) chosen.value = undefined
    else await attempt(async () => (chosen.value = await ask(arrivalSchema, `/arrivals/${String(at)}`)))
  },
  { immediate: true },
)
watch(
  () => arrivals.changes,
  () => void load(),
)

async function putAway(away: boolean) {
  await attempt(async () => (chosen.value = await arrivals.putAway(chosen.value!.id, away)))
}
async function forget() {
  const { number, name } = chosen.value!
  const yes = await asking.ask({
    question: `Forget who handed in number ${number}?`,
    detail: `Its files stay where they are, for the desk alone. That they came from ${name}, when and with which words goes, and the receipt is no longer to be read.`,
    yes: 'Forget it',
    no: 'Keep it',
  })
  if (!yes) return
  await attempt(async () => {
    await arrivals.remove(chosen.value!.id)
    await router.replace({ query: {} })
    notices.say('It was forgotten. The log says that it was done.', { tone: 'works' })
  })
}
const WAITING = [
  { value: null, title: 'All that came' },
  { value: 'yes', title: 'What waits' },
] as const
const HEADERS = [
  { title: 'No.', key: 'number', sortable: false },
  { title: 'From', key: 'name', sortable: false },
  { title: 'Files', key: 'files', sortable: false },
  { title: 'Came', key: 'at', sortable: false },
] as const
const filesOf = ({ files }: Arrival) =>
  files.length === 1 ? files[0]!.fileName : `${files[0]!.fileName} and ${counted(files.length - 1, 'more')}`
</script>

<template>
  <MarginBoard heading="Letterbox">
    <p v-if="failure" class="say" role="alert">{{ failure }} <VBtn @click="load">Try again</VBtn></p>
    <VSkeletonLoader v-else-if="!list" type="list-item@10" loading-text="Reading what came in…" />
    <div v-else-if="none" class="say empty">
      <p><b>Nothing has been handed in yet.</b></p>
      <p>
        Put a letterbox on a page: type “/letterbox” where it should stand. What visitors send lies in the folder you choose, for nobody but
        the desk, and stands here with who sent it.
      </p>
      <VBtn variant="outlined" to="/desk">To the pages</VBtn>
    </div>
    <div v-if="list && !none" class="bar">
      <VTextField v-model="q" type="search" placeholder="Part of a name, a file, or the number" aria-label="Find what came in" />
      <VSelect v-model="waiting" :items="[...WAITING]" aria-label="Which of it" />
    </div>
    <template v-if="list && !none" #list>
      <VDataTable :headers="HEADERS" :items="list.items" item-value="id" :items-per-page="-1">
        <template #item="{ item }">
          <tr :class="{ chosen: item.id === chosen?.id, waits: !item.away }" @click="choose(item.id)">
            <td class="number">{{ item.number }}</td>
            <td>
              <VBtn color="ink" class="who" :aria-pressed="item.id === chosen?.id" @click.stop="choose(item.id)">{{ item.name }}</VBtn>
              <span v-if="!item.away" class="side">waits</span>
            </td>
            <td>{{ filesOf(item) }}</td>
            <td class="when">{{ shortDate(item.at) }}</td>
          </tr>
        </template>
        <template #no-data>Nothing like that.</template>
      </VDataTable>
      <p class="foot">
        {{ counted(list.total, 'arrival') }}
        <VPagination v-if="pages > 1" v-model="page" :length="pages" :total-visible="5" />
      </p>
    </template>
    <template v-if="chosen" #margin>
      <section class="particulars" :aria-label="`Number ${chosen.number}`">
        <h2>Number {{ chosen.number }}, from {{ chosen.name }}</h2>
        <p>
          <a :href="`mailto:${chosen.email}`">{{ chosen.email }}</a><br />{{ longDate(chosen.at) }}, by “{{ chosen.letterbox }}” on
          <NuxtLink v-if="chosen.pageId" :to="`/desk/pages/${chosen.pageId}`">{{ chosen.pageTitle }}</NuxtLink><template v-else
            >{{ chosen.pageTitle }}, which is gone</template
          >
        </p>
        <p v-if="chosen.words" class="said">“{{ chosen.words }}”</p>
        <p v-if="chosen.answers">
          In answer to
          <NuxtLink v-if="chosen.answers.id" :to="`/desk/files/${chosen.answers.id}`">{{ chosen.answers.title }}</NuxtLink><template
            v-else
            >{{ chosen.answers.title }}</template
          >
        </p>
        <ul>
          <li v-for="(file, index) in chosen.files" :key="index">
            <NuxtLink v-if="file.id" :to="`/desk/files/${file.id}`">{{ file.fileName }}</NuxtLink><template v-else
              >{{ file.fileName }} (not in the library)</template
            >, {{ formatSize(file.size) }}
            <code class="sum" :title="`SHA-256: ${file.sha256}`">{{ file.sha256.slice(0, 16) }}…</code>
          </li>
        </ul>
        <p class="hint">Only the desk has these. Open a file, and choose under “Who may have it” who else should.</p>
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
        <p v-if="chosen.away" class="hint">Put away on {{ longDate(chosen.away) }}{{ chosen.awayBy ? ` by ${chosen.awayBy}` : '' }}.</p>
        <div class="acts">
          <VBtn v-if="!chosen.away" variant="outlined" @click="putAway(true)">Put away</VBtn>
          <VBtn v-else @click="putAway(false)">It still waits</VBtn>
          <VBtn color="clay" @click="forget">Forget who sent it…</VBtn>
        </div>
      </section>
    </template>
  </MarginBoard>
</template>

<style scoped>
td.number {
  font-variant-numeric: tabular-nums;
}
.who {
  margin-left: -8px;
}
.side {
  color: #7a5d0c;
}
.said {
  white-space: pre-line;
}
ul {
  margin: 0;
  padding-left: 18px;
}
.sum {
  color: var(--soft);
  font-size: 12px;
}
</style>
