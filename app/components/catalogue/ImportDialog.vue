<script setup lang="ts">
import { z } from 'zod'
import { importForecastSchema, importLookSchema, type ImportForecast, type ImportLook, type ImportPlan } from '~~/core/catalogue/import'
import { TITLE, isFileKind, type FieldKind } from '~~/core/catalogue/field'
import { isZip } from '~~/core/files/mediaType'
import { jobItemSchema } from '~~/core/jobs/jobItem'
import { KIND_ITEMS } from '~/catalogue/fieldWords'
import type { LocalFile } from '~/composables/localFiles'

/** A table that comes in: which column goes where, and what will come of it, before anything does. */
const props = defineProps<{
  /** of the computer, or the name and identity of one of the library */
  file: File | { id: string; name: string }
  /** the catalogue it goes into; undefined for a new one */
  into?: string
  /** files that its cells name, which come along */
  along?: LocalFile[]
}>()
const emit = defineEmits<{ close: []; done: [catalogue: string] }>()

const catalogues = useCatalogues()
const jobs = useJobs()
const { problem, attempt } = useAttempt()
const look = ref<ImportLook>()
const plan = ref<ImportPlan>()
const forecast = ref<ImportForecast>()
const busy = ref(false)
const job = ref<{ id: string; catalogue: string }>()
const running = computed(() => jobs.items.find(({ id }) => id === job.value?.id))

async function read() {
  const query = new URLSearchParams({ name: props.file.name, catalogue: props.into ?? '' })
  await attempt(async () => {
    look.value =
      props.file instanceof File
        ? await ask(importLookSchema, `/entry-imports?${query}`, 'POST', props.file)
        : await ask(importLookSchema, '/entry-imports/of-file', 'POST', { file: props.file.id, catalogue: props.into ?? null })
    plan.value = look.value.plan
  })
}
onMounted(read)

const uploads = useUploads()
/** Files that cells name come into the library, out of a zip too; what the table becomes is said anew when they are there. */
function bringAlong(files: LocalFile[]) {
  void uploads.bring(files, null, async item => {
    if (isZip(item.mediaType)) await attempt(() => jobs.unpack(item.id))
    await foresee()
  })
}
onMounted(() => props.along?.length && bringAlong(props.along))
const chooseAlong = async () => bringAlong((await chooseFiles({ multiple: true })).map(file => ({ file, path: file.name })))
const unpacking = computed(() => jobs.items.filter(({ kind, state }) => kind === 'unpack' && state !== 'running').length)
watch(unpacking, foresee)
const namesFiles = computed(() =>
  plan.value?.mapping.some(to =>
    isFileKind(
      to.to === 'new' ? to.kind : to.to === 'field' ? (catalogue.value?.fields.find(({ id }) => id === to.field)?.kind ?? 'text') : 'text',
    ),
  ),
)

let asked = 0
async function foresee() {
  if (!look.value || !plan.value) return
  const mine = ++asked
  await attempt(async () => {
    const seen = await ask(importForecastSchema, `/entry-imports/${look.value!.id}/forecast`, 'POST', plan.value)
    if (mine === asked) forecast.value = seen
  })
  if (problem.value) forecast.value = undefined
}
watch(plan, useDebounceFn(foresee, 250), { deep: true })

const catalogue = computed(() => (props.into ? catalogues.byId.get(props.into) : undefined))
/** Where a column goes, as one choice. */
const places = computed(() => [
  { value: 'nowhere', title: 'Left out' },
  ...(catalogue.value?.fields ?? [{ id: TITLE, name: 'Its name' }]).map(({ id, name }) => ({ value: `field ${id}`, title: name })),
  { value: 'new', title: 'A new field' },
])
const placeOf = (at: number) => {
  const to = plan.value!.mapping[at]!
  return to.to === 'field' ? `field ${to.field}` : to.to
}
function send(at: number, place: string) {
  const column = look.value!.columns[at]!
  const mapping = [...plan.value!.mapping]
  const [to, field] = place.split(' ')
  mapping[at] = to === 'field' ? { to, field: field! } : to === 'new' ? { to, name: column.name, kind: column.kind } : { to: 'nowhere' }
  plan.value = { ...plan.value!, mapping }
}
function become(at: number, kind: FieldKind) {
  const mapping = plan.value!.mapping.map((to, index) => (index === at && to.to === 'new' ? { ...to, kind } : to))
  plan.value = { ...plan.value!, mapping }
}
const keys = computed(() => [
  { value: null, title: 'Their names' },
  ...look.value!.columns.flatMap(({ name }, at) =>
    plan.value!.mapping[at]!.to !== 'nowhere' && placeOf(at) !== `field ${TITLE}` ? [{ value: at, title: name }] : [],
  ),
])
const wrong = computed(() => (forecast.value ? forecast.value.counts.wrong + forecast.value.counts.left : 0))
const wrongWords = computed(() => {
  const { wrong: cells = 0, left: rows = 0 } = forecast.value?.counts ?? {}
  return [cells && counted(cells, 'cell'), rows && counted(rows, 'row')].filter(Boolean).join(' and ')
})
const HEADERS = [
  { title: 'Row', key: 'row', width: 64 },
  { title: 'Column', key: 'column', width: 130 },
  { title: 'What is wrong', key: 'words' },
]

async function bring() {
  busy.value = true
  await attempt(async () => {
    const answer = await ask(z.object({ job: jobItemSchema, catalogue: z.string() }), `/entry-imports/${look.value!.id}/bring`, 'POST', {
      ...plan.value,
      despite: wrong.value > 0,
    })
    job.value = { id: answer.job.id, catalogue: answer.catalogue }
    await jobs.load()
  })
  if (problem.value) busy.value = false
}
watch(running, async now => {
  if (!now || !job.value || now.state === 'running') return
  const { catalogue: made } = job.value
  busy.value = false
  job.value = undefined
  await tell(`/jobs/${now.id}`, 'DELETE').catch(() => undefined)
  if (now.state === 'done') {
    await catalogues.refresh()
    emit('done', made)
  } else problem.value = now.error ?? 'Stopped. Nothing came in.'
})
const stop = () => job.value && jobs.stop(job.value.id)
</script>

<template>
  <VDialog :model-value="true" max-width="860" scrollable persistent aria-labelledby="import-head" @keydown.esc="!busy && emit('close')">
    <div class="dialog import">
      <h2 id="import-head">{{ catalogue ? `“${file.name}” into ${catalogue.name}` : `“${file.name}” as a catalogue` }}</h2>
      <p v-if="!look && !problem" role="status">Reading the table…</p>
      <template v-if="look && plan">
        <div v-if="!catalogue" class="pair">
          <VTextField v-model="plan.name" v-focus label="All of them are called" maxlength="60" />
          <VTextField v-model="plan.one" label="One of them is a" maxlength="60" />
        </div>
        <div class="mapping">
          <VTable class="columns">
            <thead>
              <tr>
                <th scope="col">Column</th>
                <th scope="col">For instance</th>
                <th scope="col">Goes into</th>
                <th scope="col">Which holds</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(column, at) in look.columns" :key="at">
                <th scope="row">{{ column.name }}</th>
                <td class="samples">{{ column.samples.slice(0, 2).join(', ') || 'nothing' }}</td>
                <td>
                  <VSelect
                    :aria-label="`${column.name} goes into`"
                    :items="places"
                    :model-value="placeOf(at)"
                    @update:model-value="send(at, $event)"
                  />
                </td>
                <td>
                  <VSelect
                    v-if="plan.mapping[at]!.to === 'new'"
                    :aria-label="`${column.name} holds`"
                    :items="KIND_ITEMS"
                    :model-value="(plan.mapping[at] as { kind: FieldKind }).kind"
                    @update:model-value="become(at, $event)"
                  />
                </td>
              </tr>
            </tbody>
          </VTable>
        </div>
        <VSelect
          v-if="keys.length > 1"
          v-model="plan.key"
          class="key"
          label="Entries are known by"
          :items="keys"
          hint="The same table brought in again changes those it finds, and makes no second ones."
        />
        <VCheckbox
          v-if="catalogue && forecast?.counts.others"
          :model-value="plan.others === 'bin'"
          :label="`${counted(forecast.counts.others, 'entry is', 'entries are')} not in the table: put them in the bin`"
          @update:model-value="plan.others = $event ? 'bin' : 'stay'"
        />
        <VCheckbox
          v-if="look.ofLibrary"
          v-model="plan.follow"
          label="Its next edition is the next table: it is shown to you before it comes in"
        />
        <p v-if="namesFiles" class="along">
          Its cells name files: those of the library are found.
          <VBtn variant="outlined" @click="chooseAlong">Bring others along, or a zip of them…</VBtn>
        </p>
        <p v-if="forecast" class="counts" role="status">
          <b>{{ forecast.counts.new }} new</b>, <b>{{ forecast.counts.changed }} changed</b>, {{ forecast.counts.same }} as they
          are<template v-if="wrong"
            >; <b class="fault">{{ wrongWords }} cannot come in</b></template
          >.
        </p>
        <VDataTable
          v-if="forecast?.wrong.length"
          class="wrong"
          :headers="HEADERS"
          :items="forecast.wrong"
          density="compact"
          height="150"
          fixed-header
        />
      </template>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <VProgressLinear
        v-if="busy && running?.total"
        :model-value="running.done"
        :max="running.total"
        :aria-label="`${running.done} of ${running.total} entries`"
      />
      <div class="acts">
        <VBtn variant="flat" :loading="busy" :disabled="!forecast || (!catalogue && (!plan?.name || !plan.one))" @click="bring">{{
          wrong ? 'Bring in the rest' : 'Bring it in'
        }}</VBtn>
        <VBtn v-if="busy" @click="stop">Stop</VBtn>
        <VBtn v-else @click="emit('close')">Cancel</VBtn>
      </div>
    </div>
  </VDialog>
</template>

<style scoped>
.import {
  display: grid;
  gap: 12px;
  max-height: 86vh;
  overflow: auto;
}
/* However long the table is, what is done with it is in sight. */
.import > .acts {
  position: sticky;
  bottom: 0;
  z-index: 1;
  padding-block: 8px;
  background: #fff;
}
.import > * {
  min-width: 0;
  width: 100%;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
.mapping {
  max-height: 330px;
  overflow: auto;
  border: 1px solid var(--line);
}
.columns :deep(th[scope='row']) {
  font-weight: 600;
}
.columns :deep(:is(td, th)) {
  padding: 4px 8px !important;
  height: 42px !important;
}
.columns :deep(td .v-input) {
  min-width: 150px;
}
.samples {
  max-width: 220px;
  color: var(--soft);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.along {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
}
.key {
  max-width: 340px;
}
.fault {
  color: #9a4420;
}
</style>
