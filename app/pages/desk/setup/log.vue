<script setup lang="ts">
import { z } from 'zod'
import { journalItemSchema, type JournalItem } from '~~/core/journal/journalItem'

const listSchema = z.object({ items: z.array(journalItemSchema), total: z.number() })

/** Who signed in, and who changed what; the newest first. */
useHead({ title: 'Setup: log' })
const A_PAGE = 50
const items = ref<JournalItem[]>([])
const total = ref(0)
const page = ref(1)
const route = useRoute()
const q = ref('')
const who = ref<string | null>(String(route.query.who ?? ''))
const filter = computed(() =>
  new URLSearchParams({ ...(q.value.trim() && { q: q.value.trim() }), ...(who.value && { who: who.value }) }).toString(),
)
const loading = ref(true)
const problem = ref('')

let turn = 0
async function load({ page: wanted }: { page: number }) {
  const mine = ++turn
  loading.value = true
  problem.value = ''
  try {
    const answer = await ask(listSchema, `/journal?${filter.value}&from=${(wanted - 1) * A_PAGE}&limit=${A_PAGE}`)
    // What was asked for first may come last.
    if (mine !== turn) return
    items.value = answer.items
    total.value = answer.total
  } catch (error) {
    problem.value = wordsOf(error)
  } finally {
    loading.value = false
  }
}
const loadSoon = useDebounceFn(() => (page.value === 1 ? load({ page: 1 }) : (page.value = 1)), 200)
watch(filter, loadSoon)
const HEADERS = [
  { title: 'When', key: 'at' },
  { title: 'Who', key: 'who' },
  { title: 'Did', key: 'words' },
  { title: 'From', key: 'place' },
].map(header => ({ ...header, sortable: false }))
</script>

<template>
  <section class="log" aria-labelledby="log-head">
    <h2 id="log-head">Who did what</h2>
    <div class="bar">
      <VTextField v-model="q" type="search" placeholder="What was done, or to what" aria-label="Find in the log" />
      <VTextField v-model="who" type="email" placeholder="By everybody" aria-label="Done by" clearable />
      <a class="plain" :href="`/api/journal/export?${filter}`" download>Save as a table (CSV)</a>
    </div>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <VProgressLinear v-if="loading" indeterminate aria-label="Reading the log" />
    <VDataTableServer
      :headers="HEADERS"
      :items="items"
      :items-length="total"
      :items-per-page="A_PAGE"
      :page="page"
      :no-data-text="filter ? 'Nothing like that.' : 'Nothing has been done yet.'"
      @update:options="load"
      @update:page="page = $event"
    >
      <template #[`item.at`]="{ item }">{{ longDate(item.at) }}</template>
      <template #[`item.words`]="{ item }">
        {{ item.words
        }}<template v-if="item.leadsTo"
          >: <NuxtLink :to="item.leadsTo">{{ item.about }}</NuxtLink></template
        ><template v-else-if="item.about">: {{ item.about }}</template>
      </template>
      <template #bottom><PageTurner v-model="page" :total="total" :per-page="A_PAGE" /></template>
      <template #[`item.place`]="{ item }"
        ><span class="mono">{{ item.place }}</span></template
      >
    </VDataTableServer>
    <p class="hint">Kept for a year. Pages that are being written are told when they go live.</p>
  </section>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
}
.bar > .v-input {
  flex: 1 1 200px;
}
.log {
  max-width: none;
}
.problem {
  padding: 10px 0;
}
</style>
