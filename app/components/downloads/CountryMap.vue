<script setup lang="ts">
import { Chart, Tooltip, type ChartData, type ChartOptions } from 'chart.js'
import { ChoroplethController, ColorScale, GeoFeature, ProjectionScale, topojson } from 'chartjs-chart-geo'
import { alpha2ToNumeric } from 'i18n-iso-countries'
import { createTypedChart } from 'vue-chartjs'
import atlas from 'world-atlas/countries-110m.json'
import type { Board } from '~~/core/tally/board'
import { shadeBounds, shadeOf } from '~~/core/tally/shades'

/** From which countries files were taken, drawn; the list beneath has the same numbers. */
const props = defineProps<{ rows: Board['list']['rows'] }>()
const emit = defineEmits<{ choose: [country: string] }>()
Chart.register(ChoroplethController, ColorScale, GeoFeature, ProjectionScale, Tooltip)
const MapChart = createTypedChart('choropleth', ChoroplethController)

/** From paper to deep water; each darker than the one before by as much. */
const COLOURS = ['#E3EAE8', '#C7DEDD', '#93C0BE', '#559C9A', '#0E6A68', '#083F3E']
/** Natural Earth, in the public domain; small countries have no shape at this scale. */
interface Shape {
  /** three figures (ISO 3166-1) */
  id?: string
  properties: { name: string }
}
const SHAPES = (topojson.feature(atlas as never, 'countries' as never) as unknown as { features: Shape[] }).features
  // Nobody lives there, and it would take a fifth of the map.
  .filter(({ id }) => id !== '010')

const byNumber = computed(() => new Map(props.rows.flatMap(row => (row.key ? [[alpha2ToNumeric(row.key) ?? '', row] as const] : []))))
const takenIn = (id: string | number | undefined) => byNumber.value.get(String(id))?.count ?? 0
const largest = computed(() => Math.max(0, ...SHAPES.map(({ id }) => takenIn(id))))
const colourOf = (count: number) => COLOURS[shadeOf(count, largest.value)]!
const undrawn = computed(() => {
  const drawn = new Set(SHAPES.map(({ id }) => String(id)))
  return [...byNumber.value].flatMap(([number, { key }]) => (drawn.has(number) ? [] : [keyWords('country', key, {})]))
})
const bounds = computed(() => shadeBounds(largest.value))
const rangeWords = ({ from, to }: { from: number; to: number }) =>
  from === to ? from.toLocaleString() : `${from.toLocaleString()} to ${to.toLocaleString()}`

const data = computed<ChartData<'choropleth'>>(() => ({
  labels: SHAPES.map(({ properties }) => properties.name),
  datasets: [
    {
      label: 'Countries',
      data: SHAPES.map(feature => ({ feature, value: takenIn(feature.id) })) as never,
      backgroundColor: ({ dataIndex }) => colourOf(takenIn(SHAPES[dataIndex]?.id)),
      borderColor: '#FFFFFF',
      borderWidth: 0.6,
    },
  ],
}))
const options = computed<ChartOptions<'choropleth'>>(() => ({
  responsive: true,
  maintainAspectRatio: false,
  animation: false,
  showOutline: false,
  showGraticule: false,
  onClick: (_event, [hit]) => {
    const row = hit && byNumber.value.get(String(SHAPES[hit.index]?.id))
    if (row) emit('choose', row.key)
  },
  scales: { projection: { axis: 'x', projection: 'naturalEarth1' }, color: { axis: 'x', display: false } },
  plugins: {
    legend: { display: false },
    tooltip: {
      callbacks: {
        label: ({ dataIndex }) => {
          const id = String(SHAPES[dataIndex]?.id)
          const row = byNumber.value.get(id)
          return `${row ? keyWords('country', row.key, {}) : SHAPES[dataIndex]?.properties.name}: ${counted(takenIn(id), 'download')}`
        },
      },
    },
  },
}))
</script>

<template>
  <figure v-if="largest" class="map">
    <div class="canvas">
      <MapChart :data="data" :options="options" role="img" aria-label="Map of the countries; their numbers stand beneath as a list" />
    </div>
    <figcaption>
      <span v-for="bound in bounds" :key="bound.shade" class="shade"
        ><i :style="{ background: COLOURS[bound.shade] }" />{{ rangeWords(bound) }}</span
      >
      <span v-if="undrawn.length" class="undrawn">Too small to be drawn: {{ undrawn.join(', ') }}.</span>
    </figcaption>
  </figure>
</template>

<style scoped>
.map {
  margin: 0;
  padding: 6px 16px 0;
}
.canvas {
  position: relative;
  height: clamp(180px, 40cqi, 360px);
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  padding-top: 6px;
  font-size: 12.5px;
  color: var(--soft);
}
.shade {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}
.shade i {
  inline-size: 16px;
  block-size: 12px;
}
.undrawn {
  flex-basis: 100%;
}
</style>
