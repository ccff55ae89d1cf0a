<script setup lang="ts">
import { logSchema, type DownloadsLog, type LogItem } from '~~/core/tally/board'
import { formatSize } from '~~/core/files/size'
import type { Dimension } from '~~/core/tally/particulars'

/** Single downloads, the newest first. */
const props = defineProps<{ given: string; zone: string }>()
const A_PAGE = 50
const page = ref(1)
const q = ref('')
const sought = refDebounced(q, 250)
const filter = computed(() => (sought.value.trim() ? `${props.given}&${new URLSearchParams({ q: sought.value.trim() })}` : props.given))
const log = shallowRef<DownloadsLog>()
const failure = ref('')
const taken = useTaken()
let turn = 0
async function load() {
  const mine = ++turn
  failure.value = ''
  try {
    const found = await ask(logSchema, `/downloads/log?${filter.value}&offset=${(page.value - 1) * A_PAGE}&limit=${A_PAGE}`)
    // What was asked for first may come last.
    if (mine === turn) log.value = found
  } catch (error) {
    failure.value = wordsOf(error)
  }
}
const loadSoon = useThrottleFn(load, 1000, true)
onMounted(load)
watch(page, load)
watch(filter, () => (page.value === 1 ? load() : (page.value = 1)))
watch(
  () => taken.changes,
  () => void loadSoon(),
)

const day = computed(() => new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeZone: props.zone }))
const time = computed(() => new Intl.DateTimeFormat(undefined, { timeStyle: 'short', timeZone: props.zone }))
/** What is left out where there is no room for it. */
const WIDE = { class: 'wide' }
const HEADERS = [
  { title: 'When', key: 'at', sortable: false },
  { title: 'File', key: 'file', sortable: false },
  { title: 'From', key: 'from', sortable: false },
  { title: 'With', key: 'with', sortable: false, headerProps: WIDE },
  { title: 'Size', key: 'bytes', sortable: false, align: 'end', headerProps: WIDE },
] as const
const say = (item: LogItem, dimension: Dimension) => keyWords(dimension, item.keys[dimension]!, log.value!.names)
/** What of it is known, in words. */
/** Bytes in a time, as both are told. */
const speedWords = ({ bytes, took }: LogItem) => `in ${durationWords(took)}, ${formatSize(Math.round((bytes / took) * 1000))}/s`
const known = (item: LogItem, dimensions: Dimension[]) =>
  dimensions.filter(dimension => item.keys[dimension]).map(dimension => say(item, dimension))
/** The button and the page it stands on: "Price list" on Trade. */
function placed(item: LogItem): string[] {
  const [button, page] = [known(item, ['placement'])[0], known(item, ['page'])[0]]
  if (button === undefined) return page === undefined ? [] : [page]
  return [page === undefined ? `“${button}”` : `“${button}” on ${page}`]
}
const fromOf = (item: LogItem) => [
  ...placed(item),
  ...known(item, ['signpost']),
  ...(item.keys.referrer ? [item.keys.referrer + item.referrerPath] : []),
  ...known(item, ['link']).map(link => `personal link ${link}`),
  ...(item.keys.campaign ? [`campaign ${item.keys.campaign}`] : []),
]
</script>

<template>
  <section aria-label="Every download">
    <p v-if="failure" class="say" role="alert">{{ failure }} <VBtn @click="load">Try again</VBtn></p>
    <VSkeletonLoader v-else-if="!log" type="list-item@10" loading-text="Reading the downloads…" />
    <div class="find">
      <VTextField v-model="q" type="search" placeholder="File, page, person, site…" aria-label="Find in the log" maxlength="100" />
      <a class="plain" :href="`/api/downloads/export?${filter}`" download>Save these as CSV</a>
    </div>
    <VDataTable v-if="log" :headers="HEADERS" :items="log.items" item-value="id" :items-per-page="-1">
      <template #item="{ item }">
        <tr>
          <td class="when">
            {{ day.format(new Date(item.at)) }}<span class="side">{{ time.format(new Date(item.at)) }}</span>
          </td>
          <td>
            <NuxtLink v-if="log.names.file?.[item.keys.file!]?.place" :to="log.names.file[item.keys.file!]!.place!">{{
              say(item, 'file')
            }}</NuxtLink>
            <template v-else>{{ say(item, 'file') }}</template>
            <span class="side"
              >{{ say(item, 'edition').toLowerCase() }}<template v-if="item.count > 1">, {{ item.count }} times</template
              ><template v-if="item.keys.source">, from {{ say(item, 'source') }}</template></span
            >
          </td>
          <td>{{ fromOf(item).join(', ') || 'by its address' }}</td>
          <td class="wide">
            {{ known(item, ['person', 'country', 'device', 'browser', 'system', 'language']).join(', ') }}
            <span v-if="item.address" class="side">{{ item.address }}</span>
          </td>
          <td class="when number wide">
            {{ item.bytes ? formatSize(item.bytes) : '' }}
            <span v-if="item.took" class="side">{{ speedWords(item) }}</span>
            <span v-if="item.keys.course === 'pieces'" class="side">in pieces</span>
          </td>
        </tr>
      </template>
      <template #no-data>{{ sought ? 'Nothing with these words was taken in this time.' : 'Nothing was taken in this time.' }}</template>
    </VDataTable>
    <p v-if="log" class="foot">
      {{ counted(log.total, 'row') }}, the newest first
      <PageTurner v-model="page" :total="log.total" :per-page="A_PAGE" />
    </p>
  </section>
</template>

<style scoped>
@container (max-width: 680px) {
  :deep(.wide) {
    display: none;
  }
}
.find {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
  padding: 10px 16px 4px;
}
.find > .v-input {
  flex: 0 1 300px;
}
tr {
  cursor: default;
}
.side {
  display: block;
  font-size: 12px;
  color: var(--soft);
}
.number {
  text-align: right;
  white-space: nowrap !important;
}
</style>
