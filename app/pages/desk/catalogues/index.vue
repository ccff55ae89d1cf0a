<script setup lang="ts">
import { newCatalogueSchema } from '~~/core/catalogue/catalogue'
import type { Carried } from '~/composables/carried'

/** The catalogues of the site. */
const catalogues = useCatalogues()
const rights = useRights()
const router = useRouter()
const failure = ref('')
useHead({ title: 'Catalogues' })

async function load() {
  failure.value = ''
  try {
    await catalogues.load()
  } catch (error) {
    failure.value = wordsOf(error)
  }
}
onMounted(load)

const may = computed(() => rights.may('write') && rights.may('publish'))
const open = (id: string) => router.push(`/desk/catalogues/${id}`)
const table = shallowRef<File>()
async function chooseTable() {
  const [file] = await chooseFiles({ multiple: false })
  if (file) table.value = file
}
const { over, target } = useDropOn(false, async ({ files }: Carried) => {
  const [local] = (await files) ?? []
  if (local) table.value = local.file
})

const adding = ref(false)
const { field, submit, problem, busy, leave } = useForm({
  schema: newCatalogueSchema.pick({ name: true, one: true }),
  begin: () => ({ name: '', one: '' }),
  send: async made => {
    const { id } = await catalogues.create(made)
    adding.value = false
    await open(id)
  },
})
const openValues = async () => {
  try {
    await open((catalogues.ofSite ?? (await catalogues.openOfSite())).id)
  } catch (error) {
    failure.value = wordsOf(error)
  }
}
const HEADERS = [
  { title: 'Catalogue', key: 'name', width: '40%' },
  { title: 'Addresses', key: 'slug' },
  { title: 'Entries', key: 'entries', width: 92 },
  { title: 'Not live as written', key: 'waiting', width: 150 },
]
</script>

<template>
  <MarginBoard v-drop="may ? target : undefined" heading="Catalogues" :class="{ over }">
    <template #acts>
      <VBtn v-if="may" variant="outlined" @click="chooseTable">Bring in a table</VBtn>
      <VBtn v-if="rights.may('write')" variant="outlined" @click="adding = !adding">New catalogue</VBtn>
    </template>
    <VForm v-if="adding" class="new" @submit.prevent="submit" @keydown.esc="leave(() => (adding = false))">
      <VTextField v-focus v-bind="field('name')" label="All of them are called" maxlength="60" placeholder="Products" />
      <VTextField v-bind="field('one')" label="One of them is a" maxlength="60" placeholder="product" />
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="acts">
        <VBtn type="submit" variant="outlined" :loading="busy">Make it</VBtn><VBtn @click="adding = false">Cancel</VBtn>
      </div>
    </VForm>
    <p v-if="failure" class="say" role="alert">{{ failure }} <VBtn @click="load">Try again</VBtn></p>
    <VSkeletonLoader v-else-if="!catalogues.loaded" type="list-item-two-line@4" loading-text="Reading the catalogues…" />
    <div v-else-if="!catalogues.tables.length" class="say empty">
      <p><b>Many things that are alike, each with its files.</b></p>
      <p>
        Products, courses, machines, people: one row each in a table, with fields for what there is to say and for files. Pages list them,
        and each gets a page of its own, laid out once. When a data sheet changes, it is changed in one place.
      </p>
      <p>Drop a table here to begin: CSV, XLSX, ODS or JSON, with a heading above each column.</p>
      <VBtn v-if="may" variant="outlined" @click="chooseTable">Bring in a table</VBtn>
      <p class="values">
        Opening hours, a phone number, the season: <VBtn v-if="may" @click="openValues">values of the whole site</VBtn> are written once and
        stand on many pages.
      </p>
    </div>
    <template v-if="catalogues.tables.length" #list>
      <VDataTable :headers="HEADERS" :items="catalogues.tables" item-value="id">
        <template #item="{ item }">
          <tr @click="open(item.id)">
            <td>
              <NuxtLink :to="`/desk/catalogues/${item.id}`">{{ item.name }}</NuxtLink>
            </td>
            <td>
              <code>/{{ item.slug }}/…</code>
            </td>
            <td class="when">{{ item.entries.toLocaleString() }}</td>
            <td class="when" :class="{ fault: item.waiting }">{{ item.waiting ? item.waiting.toLocaleString() : 'All live' }}</td>
          </tr>
        </template>
      </VDataTable>
      <p v-if="may" class="hint">Drop a table here, and it becomes a catalogue.</p>
      <p v-if="may" class="hint">
        Opening hours, a phone number, the season: <VBtn @click="openValues">values of the whole site</VBtn> are written once and stand on
        many pages.
      </p>
    </template>
    <ImportDialog v-if="table" :file="table" @close="table = undefined" @done="open($event)" />
  </MarginBoard>
</template>

<style scoped>
p.hint {
  padding: 12px 14px;
}
.over {
  outline: 3px solid var(--water);
  outline-offset: -3px;
}
</style>
