<script setup lang="ts">
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  Legend,
  LinearScale,
  Tooltip,
  type ChartData,
  type ChartOptions,
  type Plugin,
} from 'chart.js'
import { Bar } from 'vue-chartjs'
import { chartSvg } from '~~/core/tally/chartSvg'
import type { Board } from '~~/core/tally/board'
import type { Listed } from '~~/core/tally/particulars'

/** Downloads over time as bars; the same numbers stand beneath as a table. */
Chart.defaults.font.family = '"Hanken Grotesk Variable", sans-serif'
Chart.defaults.font.size = 12.5
Chart.register(BarController, BarElement, CategoryScale, Legend, LinearScale, Tooltip)
const props = defineProps<{ board: Board; stack: Listed | null }>()
const emit = defineEmits<{ bar: [place: number] }>()

const labels = computed(() => props.board.bars.map(({ at }) => barWords(at, props.board.span.unit, props.board.span.zone)))
const longLabels = computed(() => props.board.bars.map(({ at }) => barWords(at, props.board.span.unit, props.board.span.zone, true)))
const series = computed(() => {
  const { bars, stacks, names } = props.board
  const { stack } = props
  if (stack === null) return [{ label: 'Downloads', data: bars.map(({ count }) => count) }]
  const told = stacks.map(({ key, bars: data }) => ({ label: keyWords(stack, key, names), data }))
  const rest = bars.map(({ count }, place) => count - stacks.reduce((sum, { bars: data }) => sum + data[place]!, 0))
  return rest.some(Boolean) ? [...told, { label: 'The rest', data: rest }] : told
})
const data = computed<ChartData<'bar'>>(() => ({
  labels: labels.value,
  datasets: series.value.map(({ label, data }, place) => ({
    label,
    data,
    backgroundColor: barFill(label === 'The rest' ? Infinity : place),
    maxBarThickness: 46,
  })),
}))
/** Days are the least that the board shows by themselves. */
const narrows = computed(() => props.board.span.unit !== 'hour' && props.board.bars.length > 1)
/** What was done within each bar. */
const doneIn = computed(() => {
  const done = props.board.bars.map((): string[] => [])
  for (const { at, words } of props.board.marks) done[props.board.bars.findLastIndex(bar => bar.at <= at)]?.push(words)
  return done
})
/** Points, from the axis to the tip of the mark below it, and half its width. */
const [TALL, HALF] = [6, 4]
/** A mark under each bar within which something was done; what it was is said by the bar, and in the list beneath. */
const doneMarks: Plugin<'bar'> = {
  id: 'done',
  afterDraw({ ctx, scales, chartArea }) {
    ctx.save()
    ctx.fillStyle = '#9A4420'
    doneIn.value.forEach((done, place) => {
      if (!done.length) return
      const x = scales.x!.getPixelForValue(place)
      ctx.beginPath()
      ctx.moveTo(x, chartArea.bottom + 1)
      ctx.lineTo(x - HALF, chartArea.bottom + 1 + TALL)
      ctx.lineTo(x + HALF, chartArea.bottom + 1 + TALL)
      ctx.fill()
    })
    ctx.restore()
  },
}
const options = computed<ChartOptions<'bar'>>(() => ({
  responsive: true,
  maintainAspectRatio: false,
  animation: false,
  onClick: (_event, [hit]) => hit && narrows.value && emit('bar', hit.index),
  interaction: { mode: 'index', intersect: false },
  scales: {
    x: { stacked: true, grid: { display: false }, ticks: { color: '#4C5A57', padding: 6, maxRotation: 0, autoSkipPadding: 14 } },
    y: {
      stacked: true,
      beginAtZero: true,
      ticks: { color: '#4C5A57', precision: 0 },
      grid: { color: '#e1e7e5' },
      border: { display: false },
    },
  },
  plugins: {
    legend: {
      display: props.stack !== null,
      position: 'bottom',
      align: 'start',
      labels: { color: '#17211F', boxWidth: 14, boxHeight: 14 },
    },
    tooltip: {
      callbacks: {
        title: ([point]) => (point ? longLabels.value[point.dataIndex] : ''),
        afterBody: ([point]) => (point ? doneIn.value[point.dataIndex]! : []),
      },
    },
  },
}))

const chart = useTemplateRef<{ chart?: Chart }>('chart')
/** The bar that keys have gone to. */
const pointed = ref<number>()
const pointedWords = computed(() =>
  pointed.value === undefined
    ? ''
    : [
        longLabels.value[pointed.value],
        ...series.value.map(({ label, data }) => `${label}: ${data[pointed.value!]!.toLocaleString()}`),
        ...(doneIn.value[pointed.value] ?? []),
      ].join(', '),
)
/** Shows what a bar says, as under a mouse. */
function point(place: number | undefined): void {
  pointed.value = place
  const drawn = chart.value?.chart
  if (!drawn) return
  const elements = place === undefined ? [] : series.value.map((_, datasetIndex) => ({ datasetIndex, index: place }))
  drawn.setActiveElements(elements)
  drawn.tooltip?.setActiveElements(elements, { x: 0, y: 0 })
  drawn.update()
}
function onKey(event: KeyboardEvent): void {
  const last = props.board.bars.length - 1
  const at = pointed.value
  const to = {
    ArrowLeft: Math.max(0, (at ?? last + 1) - 1),
    ArrowRight: Math.min(last, (at ?? -1) + 1),
    Home: 0,
    End: last,
    Escape: undefined,
  }
  if (event.key in to) point(to[event.key as keyof typeof to])
  else if (event.key === 'Enter' && at !== undefined && narrows.value) emit('bar', at)
  else return
  event.preventDefault()
}
// Other bars stand there then; what comes in meanwhile leaves the keys where they are.
watch(
  () => [props.board.span.from, props.board.span.unit, props.board.bars.length].join(' '),
  () => point(undefined),
)

function save(href: string, kind: string) {
  const link = document.createElement('a')
  link.href = href
  link.download = `downloads-${props.board.span.firstDay}-${props.board.span.lastDay}.${kind}`
  link.click()
}
const savePng = () => save(chart.value!.chart!.toBase64Image(), 'png')
function saveSvg() {
  const { firstDay, lastDay } = props.board.span
  const svg = chartSvg({ title: `Downloads, ${firstDay} to ${lastDay}`, labels: labels.value, series: series.value })
  const href = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }))
  save(href, 'svg')
  // Not before the browser has begun to save it.
  setTimeout(() => URL.revokeObjectURL(href), 60_000)
}
const shown = ref(false)
</script>

<template>
  <figure class="chart">
    <div
      class="canvas"
      tabindex="0"
      role="group"
      aria-label="Bars of downloads: arrow keys go along them, Enter shows the time of one alone"
      @keydown="onKey"
      @blur="point(undefined)"
    >
      <p class="tr-spoken" role="status">{{ pointedWords }}</p>
      <Bar
        ref="chart"
        :data="data"
        :options="options"
        :plugins="[doneMarks]"
        :aria-label="`Downloads over time; their numbers stand beneath as a table`"
        role="img"
      />
    </div>
    <figcaption>
      <span
        ><template v-if="narrows">Press a bar, or Enter on it, to see that time alone.</template
        ><template v-if="board.marks.length"> <i class="mark" /> Something was done then.</template></span
      >
      <span>
        <VBtn @click="savePng">Save as PNG</VBtn>
        <VBtn @click="saveSvg">Save as SVG</VBtn>
      </span>
    </figcaption>
    <FoldSection v-model:open="shown" heading="The same in numbers">
      <!-- A table that is long is scrolled by key, too (WCAG 2.2, 2.1.1). -->
      <div class="numbers" tabindex="0" role="region" aria-label="Downloads over time in numbers">
        <VTable density="compact">
          <thead>
            <tr>
              <th scope="col">When</th>
              <th v-for="each in series" :key="each.label" scope="col" class="number">{{ each.label }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(label, place) in longLabels" :key="place">
              <th scope="row">{{ label }}</th>
              <td v-for="each in series" :key="each.label" class="number">{{ each.data[place]!.toLocaleString() }}</td>
            </tr>
          </tbody>
        </VTable>
      </div>
    </FoldSection>
  </figure>
</template>

<style scoped>
.chart {
  margin: 0;
  padding: 4px 16px 0;
}
.canvas {
  position: relative;
  height: 230px;
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  color: var(--soft);
}
.mark {
  display: inline-block;
  margin: 0 2px 0 10px;
  border: 4px solid transparent;
  border-top: 0;
  border-bottom: 6px solid #9a4420;
}
.numbers {
  max-height: 300px;
  overflow: auto;
}
th[scope='row'] {
  font-weight: 400;
}
.number {
  text-align: right !important;
  font-variant-numeric: tabular-nums;
}
</style>
