<script setup lang="ts">
import { mdiDotsHorizontal } from '@mdi/js'
import { z } from 'zod'
import { EXPORT_FORMATS, entryTakenSchema } from '~~/core/catalogue/entry'
import { TITLE, isFileKind, newField, type Field } from '~~/core/catalogue/field'
import { titleOf } from '~~/core/catalogue/values'
import { newId } from '~~/core/id'
import { holdsWords, lacking } from '~/catalogue/cells'
import { useComingFiles } from '~/catalogue/comingFiles'
import { TABLES, useComingTable } from '~/catalogue/comingTable'
import { useGoingLive } from '~/catalogue/goingLive'
import type { Carried } from '~/composables/carried'

/** One catalogue: its entries as a table, and in the margin the one that is chosen, or the catalogue itself. */
const route = useRoute()
const id = String(route.params.id)
const catalogues = useCatalogues()
const entries = useEntries()
const rights = useRights()
const library = useLibrary()
const timetable = useTimetable()
const failure = ref('')

const catalogue = computed(() => catalogues.byId.get(id))
useHead({ title: () => catalogue.value?.name ?? 'Catalogue' })
async function load() {
  failure.value = ''
  try {
    const refreshed = catalogues.loaded ? catalogues.load() : undefined
    await entries.open(id)
    await Promise.all([refreshed, timetable.load()])
    focusAsked()
  } catch (error) {
    failure.value = wordsOf(error)
  }
}
/** The entry that the address names. */
function focusAsked() {
  const asked = route.query.entry
  if (typeof asked === 'string' && asked) focusEntry(asked)
}
watch(() => route.query.entry, focusAsked)
onMounted(load)
watch(
  () => catalogues.changes,
  () => void entries.load().catch(() => undefined),
)

const may = computed(() => rights.may('write') && rights.may('publish'))
const words = ref('')
/** only entries that lack this */
const lacks = ref<string>()
const shown = computed(() => {
  const fields = catalogue.value?.fields ?? []
  const found = words.value.trim() ? entries.items.filter(item => holdsWords(item, fields, words.value)) : entries.items
  return lacks.value ? found.filter(({ values }) => values[lacks.value!] === undefined) : found
})
const missing = computed(() => (entries.loaded ? lacking(entries.items, catalogue.value?.fields ?? []) : []))
/** The first of them are here, or there are none. */
const begun = computed(() => entries.loaded || entries.items.length > 0)
const drawn = useDrawn(begun)
const chosen = ref(new Set<string>())
const current = ref<string>()
const entry = computed(() => (current.value ? entries.byId.get(current.value) : undefined))
/** the margin shows the catalogue, whatever row the keyboard stands on */
const whole = ref(true)
const table = useTemplateRef('table')

const add = () =>
  orSayWhy(async () => {
    words.value = ''
    lacks.value = undefined
    const [made] = await entries.create([{ [TITLE]: `New ${catalogue.value!.one}` }])
    whole.value = false
    await table.value?.begin(made!.id)
  })

const some = computed(() => [...chosen.value].filter(each => entries.byId.has(each)))
async function removeSome(ids: string[]) {
  await orSayWhy(() => entries.remove(ids))
  chosen.value = new Set()
  if (current.value && ids.includes(current.value)) current.value = undefined
}
const duplicate = () =>
  orSayWhy(async () => {
    await entries.create(
      some.value.map(each => ({
        ...entries.byId.get(each)!.values,
        [TITLE]: `${titleOf(entries.byId.get(each)!.values).slice(0, 190)}, copy`,
      })),
      true,
    )
    chosen.value = new Set()
  })

/** downloads of the files of entries in thirty days */
const taken = ref(new Map<string, number>())
async function countTaken() {
  if (!rights.may('downloads')) return
  const { items } = await ask(z.object({ items: z.array(entryTakenSchema) }), `/downloads/catalogues/${id}`)
  taken.value = new Map(items.map(({ entry: of, count }) => [of, count]))
}
onMounted(() => void countTaken().catch(() => undefined))

const { publishing, publish, publishAll, makePages, listed, waitingPages } = useGoingLive(id, catalogue)

const changed = shallowRef<{ field?: Field }>()
const { tableFile, along, newTable, lookAt, lookAtSource, chooseTable, closeTable } = useComingTable(catalogue)
const findingTable = ref(false)
const { matching, sortStrays, take } = useComingFiles(catalogue)

/** A table is looked at; other files are for the field that holds files, which is made where there is none. */
const { over, target } = useDropOn(true, async (carried: Carried) => {
  const local = (await carried.files) ?? []
  const ours = carried.things?.files ?? []
  const [first] = ours.length === 1 ? await library.meet(ours) : []
  if (first && TABLES.test(first.fileName)) return void lookAt(first)
  const tables = local.filter(({ file }) => TABLES.test(file.name))
  if (tables.length === 1) {
    along.value = local.filter(each => each !== tables[0])
    tableFile.value = tables[0]!.file
    return
  }
  const fields = catalogue.value?.fields ?? []
  const holding = fields.find(({ kind }) => kind === 'file') ?? fields.find(({ kind }) => isFileKind(kind))
  if (holding) return take(holding, { ...carried, files: Promise.resolve(local) })
  const name = 'Data sheet'
  const field = newField(newId(8), fields.some(each => each.name === name) ? 'File' : name, 'file')
  await orSayWhy(async () => {
    await catalogues.changeFields(id, [...fields, field])
    await take(field, { ...carried, files: Promise.resolve(local) })
  })
})
function focusEntry(next: string | undefined) {
  current.value = next
  if (next) whole.value = false
}
</script>

<template>
  <MarginBoard v-drop="may ? target : undefined" :heading="catalogue?.name ?? 'Catalogue'" class="catalogue" :class="{ over }">
    <template v-if="catalogue" #acts>
      <VBtn v-if="rights.may('write') && !catalogue.ofSite" variant="outlined" @click="add">New {{ catalogue.one }}</VBtn>
      <VBtn v-else-if="may" variant="outlined" @click="changed = {}">New value</VBtn>
      <VBtn v-if="may && (catalogue.waiting || waitingPages.length)" variant="flat" :loading="publishing" @click="publishAll"
        >Publish {{ catalogue.waiting || ''
        }}{{ waitingPages.length ? `${catalogue.waiting ? ' and ' : ''}${counted(waitingPages.length, 'page')}` : '' }}</VBtn
      >
      <VMenu location="bottom end">
        <template #activator="{ props: activator }">
          <VBtn v-bind="activator" aria-label="More to do with the catalogue"><VIcon :icon="mdiDotsHorizontal" /></VBtn>
        </template>
        <MenuList>
          <MenuItem v-if="may && !catalogue.ofSite" title="Bring in a table…" @click="chooseTable" />
          <MenuItem v-if="may && !catalogue.ofSite" title="Bring in a table of the library…" @click="findingTable = true" />
          <MenuItem v-if="may" title="New field…" @click="changed = {}" />
          <MenuItem title="Undo" :disabled="!entries.canUndo" @click="entries.undo()" />
          <MenuItem title="Redo" :disabled="!entries.canRedo" @click="entries.redo()" />
          <MenuItem
            v-for="format in EXPORT_FORMATS"
            :key="format"
            :title="format === 'zip' ? 'Save with its files, as a zip' : `Save as ${format.toUpperCase()}`"
            :href="`/api/catalogues/${id}/export?format=${format}`"
            download
          />
        </MenuList>
      </VMenu>
    </template>
    <p v-if="failure" class="say" role="alert">{{ failure }} <VBtn @click="load">Try again</VBtn></p>
    <p v-else-if="catalogues.loaded && !catalogue" class="say">
      This catalogue is gone. <NuxtLink to="/desk/catalogues">All catalogues</NuxtLink>
    </p>
    <VSkeletonLoader v-else-if="!begun" type="table-row@8" loading-text="Reading the entries…" />
    <template v-if="catalogue?.ofSite && begun" #list>
      <SiteValues :catalogue="catalogue" :entry="entries.items[0]" />
    </template>
    <template v-else-if="catalogue && begun" #list>
      <div class="table-side">
        <div class="bar">
          <VTextField v-model="words" aria-label="Find in it" placeholder="Find in it" clearable maxlength="100" />
          <VBtn
            v-for="{ field, count } in missing"
            :key="field.id"
            :variant="lacks === field.id ? 'flat' : 'outlined'"
            :aria-pressed="lacks === field.id"
            @click="lacks = lacks === field.id ? undefined : field.id"
            >{{ count }} of {{ entries.items.length }} without {{ field.name }}</VBtn
          >
          <VBtn v-if="!whole" @click="whole = true">Fields and pages</VBtn>
          <span v-if="entries.saving" class="saving" role="status">Saving…</span>
        </div>
        <div v-if="some.length" class="bar chosen-bar" role="group" aria-label="What is chosen">
          <b>{{ counted(some.length, 'entry', 'entries') }} chosen</b>
          <VBtn v-if="rights.may('publish')" @click="publish(some)">Put live</VBtn>
          <VBtn v-if="rights.may('publish')" @click="orSayWhy(() => entries.unpublish(some))">Take from visitors</VBtn>
          <VBtn v-if="rights.may('write')" @click="duplicate">Duplicate</VBtn>
          <VBtn v-if="may" color="clay" @click="removeSome(some)">Put in the bin</VBtn>
          <VBtn color="soft" @click="chosen = new Set()">None</VBtn>
        </div>
        <div v-if="may && newTable" class="offer">
          <span
            ><NuxtLink :to="`/desk/files/${newTable.id}`">{{ newTable.title }}</NuxtLink> has a new edition. Nothing of it is in the
            catalogue yet.</span
          >
          <VBtn variant="outlined" @click="lookAt(newTable)">Look at what it changes</VBtn>
        </div>
        <div v-if="may && catalogue.entries && !catalogue.layout" class="offer">
          <span>No page shows them yet. One can list them all, and each {{ catalogue.one }} can have its own, laid out once.</span>
          <VBtn variant="outlined" @click="makePages">Make its pages</VBtn>
        </div>
        <div v-else-if="listed" class="offer">
          <span
            >{{ listed.published ? 'They are listed on' : 'Drafted:' }}
            <NuxtLink :to="`/desk/pages/${listed.id}`">{{ listed.title }}</NuxtLink>,
            <NuxtLink :to="`/desk/pages/${catalogue.layout}`">the page of each {{ catalogue.one }}</NuxtLink></span
          >
        </div>
        <EntryTable
          v-if="shown.length"
          ref="table"
          v-model:chosen="chosen"
          :current="current"
          :fields="catalogue.fields"
          :items="shown"
          :one="catalogue.one"
          @update:current="focusEntry"
          @files="take"
        />
        <p v-else-if="entries.items.length" class="say">
          No {{ catalogue.one }} is like that. <VBtn @click="((words = ''), (lacks = undefined))">Show all</VBtn>
        </p>
        <div v-else class="say empty">
          <p><b>Nothing in it yet.</b></p>
          <p>Add one after the other, paste rows from a spreadsheet, or drop a table here.</p>
          <VBtn v-if="rights.may('write')" variant="outlined" @click="add">New {{ catalogue.one }}</VBtn>
        </div>
      </div>
    </template>
    <template v-if="catalogue && begun" #margin>
      <EntryForm
        v-if="entry && !whole && !catalogue.ofSite"
        :key="entry.id"
        :catalogue="catalogue"
        :entry="entry"
        :taken="taken.get(entry.id)"
        @remove="removeSome([entry.id])"
      />
      <CatalogueNote
        v-else-if="drawn"
        :catalogue="catalogue"
        :taken="taken"
        @field="changed = { field: $event }"
        @strays="sortStrays"
        @table="orSayWhy(lookAtSource)"
        @entry="focusEntry"
      />
    </template>
    <FieldDialog v-if="changed && catalogue" :catalogue="catalogue" :field="changed.field" @close="changed = undefined" />
    <ImportDialog v-if="tableFile" :file="tableFile" :into="id" :along="along" @close="closeTable" @done="(closeTable(), load())" />
    <VDialog v-model="findingTable" max-width="480" aria-labelledby="table-head">
      <div class="dialog">
        <h2 id="table-head">Which table of the library?</h2>
        <p class="hint">Its later editions can be the next tables.</p>
        <FileFinder
          label="Find a table"
          no-bundles
          :types="['sheet', 'application/json']"
          @choose="((findingTable = false), lookAt($event))"
          @close="findingTable = false"
        />
      </div>
    </VDialog>
    <MatchDialog v-if="matching && catalogue" :catalogue="catalogue" v-bind="matching" @close="matching = undefined" />
  </MarginBoard>
</template>

<style scoped>
.catalogue.over {
  outline: 3px solid var(--water);
  outline-offset: -3px;
}
.table-side {
  display: flex;
  flex-direction: column;
  height: 100%;
  min-height: 0;
}
.table-side .bar > .v-input {
  flex: 0 1 220px;
}
.chosen-bar {
  background: #e2efee;
}
.saving {
  color: var(--soft);
}
.offer {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 6px 14px;
  padding: 8px 16px;
  background: #fbf6e8;
  border-block: 1px solid #e8ddbd;
}
@container (max-width: 680px) {
  .table-side {
    height: auto;
  }
  .table-side :deep(.entry-table) {
    max-height: 60vh;
  }
}
</style>
