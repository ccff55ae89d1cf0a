<script setup lang="ts">
import { mdiArrowDown, mdiArrowUp } from '@mdi/js'
import { z } from 'zod'
import { ENTRY_TYPES, fieldOf, type CatalogueItem } from '~~/core/catalogue/catalogue'
import { TITLE, type Field } from '~~/core/catalogue/field'
import { importItemSchema, type ImportItem } from '~~/core/catalogue/import'
import { straySchema, type Stray } from '~~/core/catalogue/match'
import { titleOf } from '~~/core/catalogue/values'
import { KIND_WORDS } from '~/catalogue/fieldWords'

/** A catalogue as a whole, in the margin: its fields, its pages, what it is called. */
const props = defineProps<{
  catalogue: CatalogueItem
  /** downloads of the files of entries in thirty days */ taken: Map<string, number>
}>()
const emit = defineEmits<{ field: [field?: Field]; strays: [stray: Stray]; table: []; entry: [id: string] }>()

const catalogues = useCatalogues()
const entries = useEntries()
const pages = usePages()
const folders = useFolders()
const rights = useRights()
const router = useRouter()
const { problem, attempt } = useAttempt()
const TYPE_ITEMS = [
  { value: null, title: 'Nothing in particular' },
  ...ENTRY_TYPES.map(type => ({ value: type, title: type === 'DigitalDocument' ? 'Document' : type })),
]
const may = computed(() => rights.may('write') && rights.may('publish'))
const layout = computed(() => pages.all.find(({ id }) => id === props.catalogue.layout))
const { name, one, slug } = toRefs(reactive({ name: props.catalogue.name, one: props.catalogue.one, slug: props.catalogue.slug }))
watch(
  () => props.catalogue,
  now => ([name.value, one.value, slug.value] = [now.name, now.one, now.slug]),
)
const keyItems = computed(() =>
  props.catalogue.fields.filter(({ kind }) => kind === 'text').map(({ id, name: title }) => ({ value: id === TITLE ? null : id, title })),
)

/** Fields with their places; what names the one entry of the site says nothing. */
const shownFields = computed(() => [...props.catalogue.fields.entries()].filter(([, { id }]) => id !== TITLE || !props.catalogue.ofSite))

const dayOf = (iso: string) => new Date(iso).toLocaleDateString()
const imports = ref<ImportItem[]>([])
const loadImports = async () => {
  imports.value = (await ask(z.object({ items: z.array(importItemSchema) }), `/catalogues/${props.catalogue.id}/imports`)).items
}
onMounted(() => attempt(() => Promise.all([loadImports(), entries.loadBin()])))
watch(
  () => catalogues.changes,
  () => attempt(() => Promise.all([loadImports(), entries.loadBin()])),
)

const change = (changed: Parameters<typeof catalogues.change>[1]) => attempt(() => catalogues.change(props.catalogue.id, changed))
const changeName = () => {
  const changed = {
    ...(name.value !== props.catalogue.name && { name: name.value }),
    ...(one.value !== props.catalogue.one && { one: one.value }),
    ...(slug.value !== props.catalogue.slug && { slug: slug.value }),
  }
  return Object.keys(changed).length ? change(changed) : undefined
}

async function move(at: number, by: -1 | 1) {
  const fields = [...props.catalogue.fields]
  const [field] = fields.splice(at, 1)
  fields.splice(at + by, 0, field!)
  await attempt(() => catalogues.changeFields(props.catalogue.id, fields))
}

async function removeField(field: Field) {
  const fields = props.catalogue.fields.filter(({ id }) => id !== field.id)
  await attempt(async () => {
    await catalogues.changeFields(props.catalogue.id, fields)
    await Promise.all([entries.load(), entries.loadBin()])
    const kept = entries.binnedFields.find(({ name: called }) => called === field.name)
    useNotices().say(`“${field.name}” is in the bin, with what ${counted(kept?.entries ?? 0, 'entry', 'entries')} had in it.`, {
      action: { label: 'Undo', run: () => kept && restoreField(kept.id) },
    })
  })
}
const restoreField = (id: string) =>
  attempt(async () => {
    await catalogues.restoreField(props.catalogue.id, id)
    await Promise.all([entries.load(), entries.loadBin()])
  })

/** Files of folders that fit no entry beyond doubt, by the fields they are for. */
const strays = ref<Stray[]>([])
const loadStrays = async () => {
  if (!props.catalogue.fields.some(({ folder }) => folder !== null)) return void (strays.value = [])
  strays.value = (await ask(z.object({ items: z.array(straySchema) }), `/catalogues/${props.catalogue.id}/strays`)).items
}
const library = useLibrary()
onMounted(() => attempt(loadStrays))
watch([() => catalogues.changes, () => library.changes], () => attempt(loadStrays))
const fieldNamed = (id: string) => fieldOf(props.catalogue.fields, id)

const source = computed(() => (props.catalogue.source ? library.known.get(props.catalogue.source.file) : undefined))

/** The entries whose files were taken most. */
const mostTaken = computed(() =>
  [...props.taken]
    .sort(([, a], [, b]) => b - a)
    .slice(0, 5)
    .flatMap(([id, count]) => {
      const entry = entries.byId.get(id)
      return entry ? [{ id, count, title: titleOf(entry.values) }] : []
    }),
)

async function undo(item: ImportItem) {
  await attempt(async () => {
    await tell(`/entry-imports/${item.id}`, 'DELETE')
    await Promise.all([entries.load(), catalogues.load(), loadImports()])
  })
}

async function remove() {
  const { name: called, entries: count } = props.catalogue
  const sure = await useAsking().ask({
    question: `Take “${called}” away?`,
    detail: `${counted(count, 'entry goes', 'entries go')} with it, for good, and ${count === 1 ? 'its page' : 'their pages'}. Files stay in the library.`,
    yes: 'Take it away',
    no: 'Keep it',
  })
  if (sure && (await attempt(() => catalogues.remove(props.catalogue.id, true)))) await router.push('/desk/catalogues')
}
const makeLayout = () =>
  attempt(async () => {
    await tell(`/catalogues/${props.catalogue.id}/layout`, 'POST')
    await Promise.all([catalogues.load(), pages.load()])
  })
</script>

<template>
  <section class="particulars" aria-label="The catalogue">
    <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
    <h2>{{ catalogue.ofSite ? 'The values' : 'Fields' }}</h2>
    <ol class="fields">
      <li v-for="[at, field] in shownFields" :key="field.id">
        <VIcon :icon="KIND_WORDS[field.kind].icon" size="17" />
        <VBtn class="name" color="ink" :disabled="!may" :title="KIND_WORDS[field.kind].title" @click="emit('field', field)">{{
          field.name
        }}</VBtn>
        <template v-if="may && field.id !== TITLE">
          <VBtn
            color="soft"
            icon
            variant="text"
            size="x-small"
            :disabled="at < 2"
            :aria-label="`${field.name} further up`"
            @click="move(at, -1)"
            ><VIcon :icon="mdiArrowUp" size="15"
          /></VBtn>
          <VBtn
            color="soft"
            icon
            variant="text"
            size="x-small"
            :disabled="at === catalogue.fields.length - 1"
            :aria-label="`${field.name} further down`"
            @click="move(at, 1)"
            ><VIcon :icon="mdiArrowDown" size="15"
          /></VBtn>
          <VBtn color="soft" :aria-label="`Take out ${field.name}`" @click="removeField(field)">Take out</VBtn>
        </template>
      </li>
    </ol>
    <VBtn v-if="may && !catalogue.ofSite" variant="outlined" @click="emit('field')">New field</VBtn>
    <p v-for="stray in strays" :key="stray.field" class="stray">
      {{ counted(stray.files.length, 'file') }} in “{{ folders.nameOf(fieldNamed(stray.field)?.folder ?? null) }}”
      {{ stray.files.length === 1 ? 'fits' : 'fit' }} no {{ catalogue.one }} beyond doubt.
      <VBtn @click="emit('strays', stray)">Say where {{ stray.files.length === 1 ? 'it belongs' : 'they belong' }}</VBtn>
    </p>
    <template v-if="catalogue.source">
      <h2>Its table</h2>
      <p>
        <NuxtLink v-if="source" :to="`/desk/files/${source.id}`">{{ source.title }}</NuxtLink><template v-else>A file that is gone</template
        >: the next edition is the next table.
      </p>
      <p v-if="may" class="acts">
        <VBtn v-if="source" variant="outlined" @click="emit('table')">Look at it again</VBtn>
        <VBtn @click="change({ source: null })">Follow it no more</VBtn>
      </p>
    </template>
    <template v-if="mostTaken.length">
      <h2>Taken most, in thirty days</h2>
      <ul class="plain-list">
        <li v-for="entry in mostTaken" :key="entry.id">
          <VBtn color="ink" class="name" @click="emit('entry', entry.id)">{{ entry.title }}</VBtn>
          <span>{{ counted(entry.count, 'download') }}</span>
        </li>
      </ul>
    </template>
    <template v-if="!catalogue.ofSite">
      <h2>Pages</h2>
      <p v-if="layout">
        Each {{ catalogue.one }} has a page of its own, laid out once:
        <NuxtLink :to="`/desk/pages/${layout.id}`">{{ layout.title }}</NuxtLink>{{ layout.published ? '' : ', not live yet' }}.
      </p>
      <template v-else>
        <p>No {{ catalogue.one }} has a page of its own.</p>
        <VBtn v-if="rights.may('write')" @click="makeLayout">Lay one out</VBtn>
      </template>
    </template>
    <template v-if="may && !catalogue.ofSite">
      <h2>What it is called</h2>
      <VTextField v-model="name" label="All of them" maxlength="60" @blur="changeName" @keydown.enter="changeName" />
      <VTextField v-model="one" label="One of them" maxlength="60" @blur="changeName" @keydown.enter="changeName" />
      <VTextField
        v-model="slug"
        label="Addresses begin with"
        prefix="/"
        maxlength="80"
        hint="Earlier ones lead on."
        @blur="changeName"
        @keydown.enter="changeName"
      />
      <VSelect
        :model-value="catalogue.type"
        label="For search engines each is"
        :items="TYPE_ITEMS"
        hint="A type of schema.org; price, days, place and papers are named by their kinds."
        @update:model-value="change({ type: $event })"
      />
      <PropertyFields :catalogue="catalogue" @change="change({ properties: $event })" />
      <VSelect
        v-if="keyItems.length > 1"
        :model-value="catalogue.key"
        label="A table knows them by"
        :items="keyItems"
        hint="The same table brought in again changes those it finds."
        @update:model-value="change({ key: $event })"
      />
    </template>
    <template v-if="imports.length">
      <h2>Tables that came in</h2>
      <ul class="plain-list">
        <li v-for="item in imports" :key="item.id">
          <span>{{ item.name }}, {{ dayOf(item.created) }}: {{ item.counts.new }} new, {{ item.counts.changed }} changed</span>
          <VBtn v-if="may" color="soft" @click="undo(item)">Take back</VBtn>
        </li>
      </ul>
    </template>
    <template v-if="entries.binned.length || entries.binnedFields.length">
      <h2>In the bin</h2>
      <ul class="plain-list">
        <li v-for="field in entries.binnedFields" :key="field.id">
          <span>The field “{{ field.name }}”, filled in {{ counted(field.entries, 'entry', 'entries') }}</span>
          <VBtn v-if="may" color="soft" :aria-label="`Restore the field ${field.name}`" @click="restoreField(field.id)">Restore</VBtn>
        </li>
        <li v-for="item in entries.binned.slice(0, 20)" :key="item.id">
          <span>{{ item.title }}</span>
          <VBtn v-if="may" color="soft" @click="attempt(() => entries.restore([item.id]))">Restore</VBtn>
        </li>
      </ul>
    </template>
    <VBtn v-if="may && !catalogue.ofSite" color="clay" class="away" @click="remove">Take the catalogue away</VBtn>
  </section>
</template>

<style scoped>
.fields,
.plain-list {
  list-style: none;
  margin: 0;
  padding: 0;
}
.fields li,
.plain-list li {
  display: flex;
  align-items: center;
  gap: 4px;
  min-height: 32px;
  border-bottom: 1px solid #e3e9e7;
}
.plain-list li {
  justify-content: space-between;
  gap: 10px;
  padding-block: 4px;
}
.fields .name {
  flex: 1;
  min-width: 0;
  justify-content: flex-start;
  font-weight: 500;
}
.particulars > .v-btn {
  justify-self: start;
}
.stray {
  padding: 6px 10px;
  border-left: 3px solid var(--straw);
  background: #fbf3dc;
}
.away {
  margin-top: 14px;
}
</style>
