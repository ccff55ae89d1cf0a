<script setup lang="ts">
import { LISTED } from '~~/core/tally/particulars'
import type { Board } from '~~/core/tally/board'

/** By what downloads are told apart, the most taken first. */
const props = defineProps<{ board: Board; chosen?: string; fileAlone: boolean }>()
const emit = defineEmits<{ choose: [key: string]; more: [] }>()
const dimension = defineModel<Board['list']['dimension']>('dimension', { required: true })

const choices = computed(() =>
  // Editions of several files have nothing to do with each other.
  LISTED.filter(each => each !== 'edition' || props.fileAlone).map(value => ({ value, title: dimensionWords(value).by })),
)
/** What is left out where there is no room for it; the particulars say the same. */
const WIDE = { class: 'wide' }
const HEADERS = computed(() => [
  { title: dimensionWords(props.board.list.dimension).one, key: 'key', sortable: false, width: '40%' },
  { title: 'Downloads', key: 'count', sortable: false, align: 'end' as const },
  ...(beside.value ? [{ title: beside.value, key: 'seen', sortable: false, align: 'end' as const }] : []),
  { title: 'Share', key: 'share', sortable: false, headerProps: WIDE },
  ...(props.board.before ? [{ title: 'Change', key: 'before', sortable: false, align: 'end' as const }] : []),
  { title: 'Over time', key: 'line', sortable: false, headerProps: WIDE },
])
/** What is known besides: how often a page was seen, or what is in a file looked at. */
const BESIDE: Partial<Record<Board['list']['dimension'], string>> = { file: 'Looked at', page: 'Seen', placement: 'Seen' }
const beside = computed(() =>
  props.board.list.rows.some(({ seen, robots, bundled }) => seen !== undefined || robots || bundled)
    ? BESIDE[props.board.list.dimension]
    : undefined,
)
/** How many took it of those who saw its page; where more did than saw it, as by a letter, nothing is said. */
const rateOf = ({ count, seen }: { count: number; seen?: number }) =>
  props.board.list.dimension !== 'file' && seen && count <= seen ? `${Math.round((count / seen) * 100)} % took it` : ''
const shareOf = (count: number) => (props.board.total.count ? (count / props.board.total.count) * 100 : 0)
const nameOf = (key: string) => keyWords(props.board.list.dimension, key, props.board.names)
const detailOf = (key: string) => props.board.names[props.board.list.dimension]?.[key]?.detail
const left = computed(() => props.board.list.keys - props.board.list.rows.length)
</script>

<template>
  <section :aria-label="`Downloads ${dimensionWords(board.list.dimension).by}`">
    <div class="which">
      <h2>What was taken</h2>
      <VSelect v-model="dimension" :items="choices" aria-label="By what the list is made" />
    </div>
    <LazyCountryMap v-if="board.list.dimension === 'country'" :rows="board.list.rows" @choose="emit('choose', $event)" />
    <VDataTable :headers="HEADERS" :items="board.list.rows" item-value="key" :items-per-page="-1">
      <template #item="{ item }">
        <tr :class="{ chosen: item.key === chosen }" @click="emit('choose', item.key)">
          <td>
            <VBtn color="ink" :aria-pressed="item.key === chosen" @click.stop="emit('choose', item.key)">
              <span
                >{{ nameOf(item.key) }}<small v-if="detailOf(item.key)">{{ detailOf(item.key) }}</small></span
              >
            </VBtn>
          </td>
          <td class="when number">{{ item.count.toLocaleString() }}</td>
          <td v-if="beside" class="when number">
            {{ item.seen?.toLocaleString() }}
            <small v-if="rateOf(item)">{{ rateOf(item) }}</small>
            <small v-if="item.bundled">{{ item.bundled.toLocaleString() }} in bundles</small>
            <small v-if="item.robots">{{ counted(item.robots, 'robot') }}</small>
          </td>
          <td class="share wide">
            <span class="bar-line" :style="{ inlineSize: `${Math.max(1, shareOf(item.count))}%` }" />
            <span class="percent">{{ shareOf(item.count).toFixed(shareOf(item.count) < 10 ? 1 : 0) }} %</span>
          </td>
          <td v-if="board.before" class="when number change">{{ changeWords(item.count, item.before) }}</td>
          <td class="wide"><SmallLine :values="item.line" /></td>
        </tr>
      </template>
      <template #no-data>Nothing was taken in this time.</template>
    </VDataTable>
    <p class="foot">
      {{ counted(board.list.keys, 'row') }}
      <VBtn v-if="left" @click="emit('more')">Show {{ left.toLocaleString() }} more</VBtn>
    </p>
  </section>
</template>

<style scoped>
.which {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
  padding: 14px 16px 4px;
}
.which > .v-input {
  flex: 0 1 200px;
}
h2 {
  font-size: 15px;
  font-weight: 650;
}
small {
  display: block;
  font-size: 12px;
  font-weight: 400;
  color: var(--soft);
}
@container (min-width: 440px) {
  td:first-child {
    min-width: 150px;
  }
}
.number {
  text-align: right;
  font-variant-numeric: tabular-nums;
  white-space: nowrap !important;
}
.change {
  color: var(--soft);
}
.share {
  min-width: 110px;
}
/* Beside it stand particulars, at times. */
section {
  container-type: inline-size;
}
@container (max-width: 600px) {
  :deep(.wide) {
    display: none;
  }
}
.bar-line {
  display: inline-block;
  block-size: 10px;
  max-inline-size: calc(100% - 48px);
  margin-right: 6px;
  background: var(--water);
  vertical-align: -1px;
}
.percent {
  font-size: 12px;
  color: var(--soft);
  white-space: nowrap;
}
</style>
