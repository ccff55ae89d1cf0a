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
const loading = ref(true)
const problem = ref('')

async function load({ page: wanted }: { page: number }) {
  loading.value = true
  problem.value = ''
  try {
    const answer = await ask(listSchema, `/journal?from=${(wanted - 1) * A_PAGE}&limit=${A_PAGE}`)
    items.value = answer.items
    total.value = answer.total
  } catch (error) {
    problem.value = wordsOf(error)
  } finally {
    loading.value = false
  }
}
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
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <VProgressLinear v-if="loading" indeterminate aria-label="Reading the log" />
    <VDataTableServer
      :headers="HEADERS"
      :items="items"
      :items-length="total"
      :items-per-page="A_PAGE"
      :page="page"
      no-data-text="Nothing has been done yet."
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
.log {
  max-width: none;
}
.problem {
  padding: 10px 0;
}
</style>
