<script setup lang="ts">
import { z } from 'zod'
import { broughtSchema, foundSchema, importItemSchema, type Found, type ImportItem } from '~~/core/tally/brought/brought'
import { isDay } from '~~/core/timetable/setTime'

/** Numbers of before Trough: brought in from logs or a table, looked at first, and taken out again as one. */
const emit = defineEmits<{ changed: [] }>()
const rights = useRights()
const asking = useAsking()
const notices = useNotices()
const items = shallowRef<ImportItem[]>()
const chosen = shallowRef<File>()
const found = shallowRef<Found>()
const before = ref('')
const { problem, attempt } = useAttempt()
const working = ref(0)
const busy = computed(() => working.value > 0)
/** What takes a while: large files are read through twice. */
async function work(act: () => Promise<unknown>) {
  working.value++
  await attempt(act)
  working.value--
}

const load = () => attempt(async () => (items.value = await ask(z.array(importItemSchema), '/downloads/imports')))
onMounted(load)

const query = () => new URLSearchParams({ name: chosen.value!.name, ...(isDay(before.value) && { before: before.value }) })
let turn = 0
async function look() {
  const mine = ++turn
  if (!chosen.value) return
  await work(async () => {
    const looked = await ask(foundSchema, `/downloads/imports/look?${query()}`, 'POST', chosen.value)
    if (mine !== turn) return
    found.value = looked
    // What was counted here already would be counted twice.
    if (!before.value && looked.countedFrom && looked.lastDay >= looked.countedFrom) before.value = looked.countedFrom
  })
}
/** @param file one, or several of which the first is taken */
function choose(file: File | File[] | null) {
  chosen.value = [file].flat().find(each => each !== null)
  found.value = undefined
  before.value = ''
  void look()
}
watch(before, day => {
  if (found.value && (day === '' || isDay(day))) void look()
})

const takeOut = ({ id }: ImportItem) =>
  work(async () => {
    await tell(`/downloads/imports/${id}`, 'DELETE')
    emit('changed')
    await load()
  })
async function bring() {
  await work(async () => {
    const { item } = await ask(broughtSchema, `/downloads/imports?${query()}`, 'POST', chosen.value)
    notices.say(`${counted(item.downloads, 'download')} of before are in the sums.`, {
      tone: 'works',
      action: { label: 'Undo', run: () => takeOut(item) },
    })
    choose(null)
    emit('changed')
    await load()
  })
}
async function undo(item: ImportItem) {
  const yes = await asking.ask({
    question: `Take the numbers of “${item.name}” out again?`,
    detail: `${counted(item.downloads, 'download')} go from all sums. What Trough counted itself stays.`,
    yes: 'Take them out',
    no: 'Leave them',
  })
  if (yes) await takeOut(item)
}
const HEADERS = [
  { title: 'What came in', key: 'name', sortable: false },
  { title: 'Downloads', key: 'downloads', sortable: false, align: 'end' },
  { title: 'From', key: 'firstDay', sortable: false },
  { title: 'To', key: 'lastDay', sortable: false },
  { title: 'Take it back', key: 'act', sortable: false, align: 'end' },
] as const
const spanWords = ({ firstDay, lastDay }: Found) => (firstDay === lastDay ? `of ${firstDay}` : `from ${firstDay} to ${lastDay}`)
</script>

<template>
  <section class="brought" aria-label="Numbers of before">
    <h2>Numbers of before</h2>
    <p class="words">
      What was taken before Trough counted: an access log of the server you had (Combined or W3C Extended format, packed with gzip or not),
      or a table with a day, a file and a count in each line. Logs are counted by the same rules. Files are known by their addresses here,
      by
      <NuxtLink to="/desk/old-addresses">old addresses</NuxtLink> that lead to them, and in tables by title or file name too.
    </p>
    <p v-if="problem" class="say" role="alert">{{ problem }}</p>
    <template v-if="rights.may('site')">
      <VFileInput class="choose" label="Log or table" :model-value="chosen" :disabled="busy" hide-details @update:model-value="choose" />
      <VProgressLinear v-if="busy" indeterminate aria-label="Reading the numbers" />
      <div v-if="found" class="found" aria-live="polite">
        <p>
          <b>{{ counted(found.downloads, 'download') }}</b> {{ found.downloads ? spanWords(found) : '' }} in
          {{ counted(found.lines, 'line') }}. {{ FORMAT_WORDS[found.format] }}.
        </p>
        <div v-if="found.countedFrom" class="before">
          <DateField v-model="before" label="Only days before" aria-describedby="before-hint" />
          <p id="before-hint" class="hint">Trough has counted since {{ found.countedFrom }}. Leave it empty to take all of it.</p>
        </div>
        <ul v-if="leftWords(found).length" class="left">
          <li v-for="{ why, count } in leftWords(found)" :key="why">{{ counted(count, 'line') }}: {{ why }}</li>
        </ul>
        <FoldSection v-if="found.files.length" :heading="`Files (${found.files.length})`">
          <ol class="counts">
            <li v-for="file in found.files" :key="file.handle">
              <span>{{ file.title }}</span><span>{{ file.count.toLocaleString() }}</span>
            </li>
          </ol>
        </FoldSection>
        <FoldSection v-if="found.others.length" heading="Addresses of no file here, the most asked">
          <ol class="counts">
            <li v-for="other in found.others" :key="other.address">
              <span>{{ other.address }}</span><span>{{ other.count.toLocaleString() }}</span>
            </li>
          </ol>
        </FoldSection>
        <div class="acts">
          <VBtn variant="flat" :disabled="busy || !found.downloads" @click="bring"
            >Bring {{ counted(found.downloads, 'download') }} in</VBtn
          >
          <VBtn :disabled="busy" @click="choose(null)">Leave it</VBtn>
        </div>
      </div>
    </template>
    <VDataTable v-if="items?.length" :headers="HEADERS" :items="items" item-value="id" :items-per-page="-1">
      <template #item="{ item }">
        <tr>
          <td>
            {{ item.name }}<small>{{ FORMAT_WORDS[item.format] }}, {{ shortDate(item.created) }}</small>
          </td>
          <td class="when number">{{ item.downloads.toLocaleString() }}</td>
          <td class="when">{{ item.firstDay }}</td>
          <td class="when">{{ item.lastDay }}</td>
          <td class="when number">
            <VBtn v-if="rights.may('site')" :aria-label="`Take the numbers of ${item.name} out again`" @click="undo(item)">Take out</VBtn>
          </td>
        </tr>
      </template>
    </VDataTable>
    <p v-else-if="items" class="words">Nothing of before has been brought in.</p>
  </section>
</template>

<style scoped>
.brought {
  padding-bottom: 20px;
}
h2 {
  margin: 0;
  padding: 14px 16px 2px;
  font-size: 15px;
  font-weight: 650;
}
.words {
  max-width: 70ch;
  margin: 0;
  padding: 0 16px 10px;
  color: var(--soft);
}
.choose {
  max-width: 460px;
  /* Its label stands above it. */
  padding: 18px 16px 10px;
}
.found {
  display: grid;
  gap: 10px;
  max-width: 640px;
  margin: 0 16px 14px;
  padding: 12px 14px;
  border: 1px solid var(--line);
  border-radius: 4px;
}
.found p {
  margin: 0;
}
.before {
  max-width: 320px;
}
.left,
.counts {
  margin: 0;
  padding-left: 18px;
}
.counts {
  padding: 0;
  list-style: none;
}
.counts li {
  display: flex;
  gap: 12px;
  justify-content: space-between;
  padding: 2px 0;
  overflow-wrap: anywhere;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
small {
  display: block;
  font-size: 12px;
  color: var(--soft);
}
tr {
  cursor: default;
}
.number {
  text-align: right;
  white-space: nowrap !important;
}
</style>
