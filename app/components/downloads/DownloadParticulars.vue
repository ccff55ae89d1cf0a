<script setup lang="ts">
import { boardSchema, type Board } from '~~/core/tally/board'
import type { Listed } from '~~/core/tally/particulars'
import { formatSize } from '~~/core/files/size'

/** What is known of one row: what it was taken by, and how it compares. */
const props = defineProps<{ dimension: Listed; of: string; board: Board; given: string }>()
const emit = defineEmits<{ narrow: []; changed: [] }>()
const rights = useRights()
const asking = useAsking()
const notices = useNotices()
const row = computed(() => props.board.list.rows.find(({ key }) => key === props.of))
const name = computed(() => keyWords(props.dimension, props.of, props.board.names))
const place = computed(() => props.board.names[props.dimension]?.[props.of]?.place)

/** What is told of each kind of row besides. */
const LISTS: Partial<Record<Listed, [Listed, string][]>> = {
  file: [
    ['edition', 'Which edition'],
    ['placement', 'By which button'],
    ['referrer', 'From which site'],
  ],
  placement: [
    ['file', 'Which file'],
    ['country', 'From where'],
  ],
  page: [
    ['placement', 'By which button'],
    ['file', 'Which file'],
  ],
  edition: [
    ['placement', 'By which button'],
    ['page', 'From which page'],
    ['referrer', 'From which site'],
  ],
  bundle: [
    ['placement', 'By which button'],
    ['referrer', 'From which site'],
  ],
}
const lists = computed(() => (LISTS[props.dimension] ?? [['file', 'Which file']]) as [Listed, string][])
const told = shallowRef<{ heading: string; dimension: Listed; board: Board }[]>()
const { problem, attempt } = useAttempt()
/** Whoever may erase contacts may have it forgotten who took something. */
const forgettable = computed(() => props.dimension === 'person' && props.of !== '' && rights.may('contacts'))
async function forget() {
  const yes = await asking.ask({
    question: `Forget that ${name.value} took these?`,
    detail: 'The downloads stay counted. Whose they were cannot be found out again.',
    yes: 'Forget who it was',
    no: 'Keep it',
  })
  if (!yes) return
  await attempt(async () => {
    await tell(`/downloads/persons/${encodeURIComponent(props.of)}`, 'DELETE')
    notices.say('Taken out. The downloads stay counted, and nobody knows whose they were.', { tone: 'works' })
    emit('changed')
  })
}
let turn = 0
watch(
  () => [props.dimension, props.of, props.given, props.board.total.count],
  async () => {
    const mine = ++turn
    await attempt(async () => {
      const found = await Promise.all(
        lists.value.map(async ([list, heading]) => {
          const query = new URLSearchParams([
            ...new URLSearchParams(props.given),
            [props.dimension, props.of],
            ['list', list],
            ['most', '8'],
          ])
          return { heading, dimension: list, board: await ask(boardSchema, `/downloads/board?${query}`) }
        }),
      )
      if (mine === turn) told.value = found
    })
  },
  { immediate: true },
)
</script>

<template>
  <section class="particulars" :aria-label="`Downloads: ${name}`">
    <h2>{{ name }}</h2>
    <p v-if="row">
      {{ counted(row.count, 'download') }}, {{ formatSize(row.bytes) }}.
      <template v-if="row.before !== null">Before: {{ row.before.toLocaleString() }}.</template>
    </p>
    <PlacementPicture v-if="dimension === 'placement' && of" :placement="of" />
    <p class="acts">
      <VBtn variant="outlined" @click="emit('narrow')">Show this alone</VBtn>
      <VBtn v-if="place" :to="place">Open it</VBtn>
      <VBtn v-if="forgettable" @click="forget">Forget who it was</VBtn>
    </p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <template v-for="list in told" :key="list.dimension">
      <h3>{{ list.heading }}</h3>
      <ol>
        <li v-for="each in list.board.list.rows" :key="each.key">
          <span class="name">{{ keyWords(list.dimension, each.key, list.board.names) }}</span>
          <span class="count">{{ each.count.toLocaleString() }}</span>
          <span class="line"><i :style="{ inlineSize: `${(each.count / list.board.total.count) * 100}%` }" /></span>
        </li>
      </ol>
    </template>
  </section>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
h3 {
  margin: 4px 0 -6px;
  font-size: 13px;
  font-weight: 650;
}
ol {
  display: grid;
  gap: 6px;
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 10px;
}
.name {
  overflow-wrap: anywhere;
}
.count {
  font-variant-numeric: tabular-nums;
}
.line {
  grid-column: 1 / -1;
  block-size: 4px;
  background: #dde5e3;
}
.line i {
  display: block;
  block-size: 100%;
  background: var(--water);
}
</style>
