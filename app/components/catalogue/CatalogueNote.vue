<script setup lang="ts">
import { mdiArrowDown, mdiArrowUp } from '@mdi/js'
import { z } from 'zod'
import { ENTRY_TYPES, type CatalogueItem } from '~~/core/catalogue/catalogue'
import { TITLE, type Field } from '~~/core/catalogue/field'
import { importItemSchema, type ImportItem } from '~~/core/catalogue/import'
import { KIND_WORDS } from '~/catalogue/fieldWords'

/** A catalogue as a whole, in the margin: its fields, its pages, what it is called. */
const props = defineProps<{ catalogue: CatalogueItem }>()
const emit = defineEmits<{ field: [field?: Field] }>()

const catalogues = useCatalogues()
const entries = useEntries()
const pages = usePages()
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
    const losses = await catalogues.changeFields(props.catalogue.id, fields)
    if (!losses.length) return entries.load()
    const sure = await useAsking().ask({
      question: `Take “${field.name}” out of the catalogue?`,
      detail: losses.map(({ words }) => words).join(' '),
      yes: 'Take it out',
      no: 'Keep it',
    })
    if (!sure) return
    await catalogues.changeFields(props.catalogue.id, fields, true)
    await entries.load()
  })
}

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
    <h2>Fields</h2>
    <ol class="fields">
      <li v-for="(field, at) in catalogue.fields" :key="field.id">
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
    <VBtn v-if="may" variant="outlined" @click="emit('field')">New field</VBtn>
    <h2>Pages</h2>
    <p v-if="layout">
      Each {{ catalogue.one }} has a page of its own, laid out once:
      <NuxtLink :to="`/desk/pages/${layout.id}`">{{ layout.title }}</NuxtLink>{{ layout.published ? '' : ', not live yet' }}.
    </p>
    <template v-else>
      <p>No {{ catalogue.one }} has a page of its own.</p>
      <VBtn v-if="rights.may('write')" @click="makeLayout">Lay one out</VBtn>
    </template>
    <template v-if="may">
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
    <template v-if="entries.binned.length">
      <h2>In the bin</h2>
      <ul class="plain-list">
        <li v-for="item in entries.binned.slice(0, 20)" :key="item.id">
          <span>{{ item.title }}</span>
          <VBtn v-if="may" color="soft" @click="attempt(() => entries.restore([item.id]))">Restore</VBtn>
        </li>
      </ul>
    </template>
    <VBtn v-if="may" color="clay" class="away" @click="remove">Take the catalogue away</VBtn>
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
.away {
  margin-top: 14px;
}
</style>
