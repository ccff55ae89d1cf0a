<script setup lang="ts">
import { boardSchema, type Board } from '~~/core/tally/board'
import { formatSize } from '~~/core/files/size'
import { isDay } from '~~/core/timetable/setTime'

/** What was taken, when, and from where. */
useHead({ title: 'Downloads' })
const { view, given, shown, show, narrowed, narrow } = useDownloadsView()
const taken = useTaken()
const rights = useRights()
const board = shallowRef<Board>()
const failure = ref('')
const chosen = ref<string>()
const MORE = 1000
const most = ref<number>()
const stack = computed(() => (view.value.stack === 'none' ? null : view.value.stack))

const loading = ref(false)
let turn = 0
async function load() {
  const mine = ++turn
  failure.value = ''
  loading.value = true
  const query = new URLSearchParams([
    ...new URLSearchParams(given.value),
    ['stack', view.value.stack],
    ['list', view.value.list],
    ...(most.value ? [['most', String(most.value)]] : []),
  ])
  try {
    const found = await ask(boardSchema, `/downloads/board?${query}`)
    // What was asked for first may come last.
    if (mine === turn) board.value = found
  } catch (error) {
    failure.value = wordsOf(error)
  } finally {
    if (mine === turn) loading.value = false
  }
}
onMounted(load)
watch([given, () => view.value.stack, () => view.value.list], () => {
  most.value = undefined
  void load()
})
watch(
  () => [view.value.list, narrowed.value.length],
  () => (chosen.value = undefined),
)
const loadSoon = useThrottleFn(load, 3000, true)
watch(
  () => taken.changes,
  () => void loadSoon(),
)

const units = computed(() => board.value?.span.units.map(value => ({ value, title: UNIT_WORDS[value] })) ?? [])
/** Days as they are typed; shown once they are days. */
const typed = reactive({ from: '', to: '' })
watch(
  () => [view.value.from, view.value.to],
  ([from = '', to = '']) => Object.assign(typed, { from, to }),
  { immediate: true },
)
watch(typed, ({ from, to }) => {
  if (isDay(from) && isDay(to) && (from !== view.value.from || to !== view.value.to)) void show({ from, to })
})
const setSpan = (span: string) =>
  show(
    span === 'days'
      ? { span, from: board.value?.span.firstDay, to: board.value?.span.lastDay, unit: undefined }
      : { span, from: undefined, to: undefined, unit: undefined },
  )

/** The days of one bar alone. */
function showBar(place: number) {
  const { bars, span } = board.value!
  const dayAt = (at: number) => new Intl.DateTimeFormat('sv-SE', { timeZone: span.zone, dateStyle: 'short' }).format(new Date(at * 1000))
  const end = (bars[place + 1]?.at ?? span.to) - 1
  void show({ span: 'days', from: dayAt(bars[place]!.at), to: dayAt(end), unit: undefined })
}
const nameOf = ([dimension, key]: (typeof narrowed.value)[number]) => keyWords(dimension, key, board.value?.names ?? {})
const dayWords = (day: string) => new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeZone: 'UTC' }).format(new Date(day))
const spanWords = computed(() => {
  const { firstDay, lastDay } = board.value!.span
  return firstDay === lastDay ? `on ${dayWords(firstDay)}` : `from ${dayWords(firstDay)} to ${dayWords(lastDay)}`
})
function showMore() {
  most.value = MORE
  void load()
}
</script>

<template>
  <MarginBoard heading="Downloads">
    <template v-if="board" #acts>
      <VBtn v-if="shown !== 'sums'" @click="show({ show: undefined })">Sums</VBtn>
      <VBtn v-if="board.any && shown !== 'log'" @click="show({ show: 'log' })">Log</VBtn>
      <VBtn v-if="shown !== 'misses'" @click="show({ show: 'misses' })">Missed</VBtn>
      <a v-if="board.any && shown === 'sums'" class="plain" :href="`/api/downloads/export?${given}`" download>Save as CSV</a>
    </template>
    <p v-if="failure" class="say" role="alert">{{ failure }} <VBtn @click="load">Try again</VBtn></p>
    <VSkeletonLoader v-else-if="!board" type="image, list-item@8" loading-text="Adding up the downloads…" />
    <div v-else-if="!board.any && (shown === 'sums' || shown === 'log')" class="say empty">
      <p><b>Nothing has been taken yet.</b></p>
      <p>
        As soon as a visitor has a whole file, it stands here: when, which edition, from which page and button, from which other site, and
        from which country. Robots, repeated clicks and what you try yourself are left out.
      </p>
      <p>To try it, open a published page in a private window, where you are not signed in, and press a button.</p>
      <p>What was taken before Trough stands in a log or a table? It can be brought in.</p>
      <VBtn variant="outlined" to="/desk">To the pages</VBtn>
      <VBtn @click="show({ show: 'brought' })">Numbers of before</VBtn>
    </div>
    <div v-if="board && (board.any || shown === 'misses') && shown !== 'brought'" class="bar">
      <VSelect :model-value="view.span" :items="[...SPAN_WORDS]" aria-label="Which time" @update:model-value="setSpan" />
      <template v-if="view.span === 'days'">
        <DateField v-model="typed.from" aria-label="First day" />
        <DateField v-model="typed.to" aria-label="Last day" />
      </template>
      <VSelect
        v-if="view.span !== 'all' && shown === 'sums'"
        :model-value="view.against"
        :items="[...AGAINST_WORDS]"
        aria-label="Against what"
        @update:model-value="show({ against: $event })"
      />
      <template v-if="shown === 'sums'">
        <VSelect
          :model-value="board.span.unit"
          :items="units"
          aria-label="How long a bar is"
          @update:model-value="show({ unit: $event })"
        />
        <VSelect
          :model-value="view.stack"
          :items="[...STACK_WORDS]"
          aria-label="How bars are told apart"
          @update:model-value="show({ stack: $event })"
        />
      </template>
    </div>
    <VProgressLinear v-if="board && loading" indeterminate aria-label="Adding up the downloads" />
    <p v-if="board?.any && narrowed.length && shown !== 'misses' && shown !== 'brought'" class="narrowed">
      Only
      <VChip
        v-for="each in narrowed"
        :key="each[0]"
        closable
        :close-label="`Not only ${nameOf(each)}`"
        @click:close="narrow(each[0], undefined)"
        >{{ nameOf(each) }}</VChip
      >
    </p>
    <template v-if="board && (board.any || shown === 'misses' || shown === 'brought')" #list>
      <DownloadLog v-if="shown === 'log'" :given="given" :zone="board.span.zone" />
      <BroughtIn v-else-if="shown === 'brought'" @changed="load" />
      <DownloadMisses v-else-if="shown === 'misses'" :given="given" />
      <template v-else>
        <p class="sum">
          <b>{{ counted(board.total.count, 'download') }}</b> {{ spanWords }}, {{ formatSize(board.total.bytes) }}.
          <template v-if="board.before">
            Before: {{ board.before.count.toLocaleString()
            }}<template v-if="board.before.count"> ({{ changeWords(board.total.count, board.before.count) }})</template>.
          </template>
        </p>
        <LazyDownloadChart :board="board" :stack="stack" @bar="showBar" />
        <FoldSection v-if="board.total.count" class="done" heading="Weekdays and hours">
          <WeekTable :week="board.week" />
        </FoldSection>
        <FoldSection v-if="board.marks.length" class="done" heading="What was done in this time">
          <ul class="marks">
            <li v-for="(mark, place) in board.marks" :key="place">
              {{ barWords(mark.at, 'day', board.span.zone) }}:
              <NuxtLink v-if="mark.place" :to="mark.place">{{ mark.words }}</NuxtLink>
            </li>
          </ul>
        </FoldSection>
        <DownloadList
          :board="board"
          :chosen="chosen"
          :file-alone="view.file !== undefined"
          :dimension="view.list"
          @update:dimension="show({ list: $event })"
          @choose="chosen = $event"
          @more="showMore"
        />
        <FoldSection v-if="rights.may('site')" class="done" heading="Told by message">
          <SummaryForm />
        </FoldSection>
        <p class="done"><VBtn @click="show({ show: 'brought' })">Numbers of before Trough…</VBtn></p>
      </template>
    </template>
    <template v-if="board && chosen !== undefined && shown === 'sums'" #margin>
      <DownloadParticulars
        :dimension="board.list.dimension"
        :of="chosen"
        :board="board"
        :given="given"
        @narrow="narrow(board.list.dimension, chosen)"
        @changed="load"
      />
    </template>
  </MarginBoard>
</template>

<style scoped>
.narrowed {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  margin: 0;
  padding: 0 16px 10px;
}
.sum {
  margin: 0;
  padding: 12px 16px 6px;
}
.done {
  padding: 0 16px;
}
.marks {
  margin: 0;
  padding-left: 18px;
}
</style>
