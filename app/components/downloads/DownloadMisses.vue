<script setup lang="ts">
import { missesSchema, type Misses } from '~~/core/tally/occasions'

/** What visitors wanted and did not get. */
const props = defineProps<{ given: string }>()
const misses = shallowRef<Misses>()
const { problem, attempt } = useAttempt()
let turn = 0
async function load() {
  const mine = ++turn
  await attempt(async () => {
    const found = await ask(missesSchema, `/downloads/misses?${props.given}`)
    // What was asked for first may come last.
    if (mine === turn) misses.value = found
  })
}
watch(() => props.given, load, { immediate: true })

const nothing = computed(
  () =>
    misses.value &&
    ![misses.value.broken, misses.value.stopped, misses.value.missing, misses.value.unfound, misses.value.failed].some(
      ({ length }) => length,
    ),
)
const nameOf = (id: string) => misses.value!.names[id]?.title ?? 'What is gone'
const placeOf = (id: string) => misses.value!.names[id]?.place
/** "3 within the first tenth, 2 at 60 %" */
const tenthWords = (tenths: readonly number[]) =>
  tenths
    .flatMap((count, tenth) => (count ? `${count.toLocaleString()} ${tenth ? `at ${tenth * 10}\u00A0%` : 'at the start'}` : []))
    .join(', ')
const columns = (one: string, detail?: string) => [
  { title: one, key: 'key', sortable: false, width: '50%' },
  { title: 'Times', key: 'count', sortable: false, align: 'end' as const },
  ...(detail ? [{ title: detail, key: 'detail', sortable: false }] : []),
]
</script>

<template>
  <section class="misses" aria-label="What visitors missed">
    <p v-if="problem" class="say" role="alert">{{ problem }} <VBtn @click="load">Try again</VBtn></p>
    <VSkeletonLoader v-else-if="!misses" type="list-item@8" loading-text="Adding up what was missed…" />
    <div v-else-if="nothing" class="say empty">
      <p><b>Nothing was missed in this time.</b></p>
      <p>
        Here stands what visitors wanted and did not get: downloads that broke off, what they came to a gate for, addresses with nothing
        behind them, and words they looked for in vain. Robots and what you try yourself are left out.
      </p>
    </div>
    <template v-else>
      <template v-if="misses.missing.length">
        <h2>Not there</h2>
        <p>
          Addresses that were followed and lead nowhere. One that others still use can be
          <NuxtLink to="/desk/old-addresses">led to what is there now</NuxtLink>.
        </p>
        <VDataTable :headers="columns('Address', 'Followed on')" :items="misses.missing" item-value="key" :items-per-page="-1">
          <template #item="{ item }">
            <tr>
              <td class="address">{{ item.key || 'Many others, each a few times' }}</td>
              <td class="when number">{{ item.count.toLocaleString() }}</td>
              <td class="address">{{ item.from.flatMap(({ key }) => key || []).join(', ') || 'not said' }}</td>
            </tr>
          </template>
        </VDataTable>
      </template>
      <template v-if="misses.unfound.length">
        <h2>Looked for and not found</h2>
        <p>Words for which the site had no file. Those of a file’s title, description or tags are found.</p>
        <VDataTable :headers="columns('Words')" :items="misses.unfound" item-value="key" :items-per-page="-1">
          <template #item="{ item }">
            <tr>
              <td>{{ item.key || 'Many others, each a few times' }}</td>
              <td class="when number">{{ item.count.toLocaleString() }}</td>
            </tr>
          </template>
        </VDataTable>
      </template>
      <template v-if="misses.stopped.length">
        <h2>Came to a gate</h2>
        <p>Visitors who were asked for something first, and how often it was taken in the same time.</p>
        <VDataTable :headers="columns('What they wanted', 'Taken')" :items="misses.stopped" item-value="key" :items-per-page="-1">
          <template #item="{ item }">
            <tr>
              <td>
                <NuxtLink v-if="placeOf(item.key)" :to="placeOf(item.key)!">{{ nameOf(item.key) }}</NuxtLink>
                <template v-else>{{ nameOf(item.key) }}</template>
                <small>{{ item.gates.map(nameOf).join(', ') }}</small>
              </td>
              <td class="when number">{{ item.count.toLocaleString() }}</td>
              <td>{{ item.taken.toLocaleString() }}</td>
            </tr>
          </template>
        </VDataTable>
      </template>
      <template v-if="misses.broken.length">
        <h2>Not taken whole</h2>
        <p>Downloads of which no more was asked for in a day. Browsers that show a PDF and need only a part of it are among them.</p>
        <VDataTable :headers="columns('File', 'How far it came')" :items="misses.broken" item-value="key" :items-per-page="-1">
          <template #item="{ item }">
            <tr>
              <td>
                <NuxtLink v-if="placeOf(item.key)" :to="placeOf(item.key)!">{{ nameOf(item.key) }}</NuxtLink>
                <template v-else>{{ nameOf(item.key) }}</template>
              </td>
              <td class="when number">{{ item.count.toLocaleString() }}</td>
              <td>
                {{ tenthWords(item.tenths) }}
              </td>
            </tr>
          </template>
        </VDataTable>
      </template>
      <template v-if="misses.failed.length">
        <h2>Went wrong here</h2>
        <p>Visitors were told to try again later. What happened stands in what the server printed, and in Checks where it lasts.</p>
        <VDataTable :headers="columns('Address')" :items="misses.failed" item-value="key" :items-per-page="-1">
          <template #item="{ item }">
            <tr>
              <td class="address">{{ item.key || 'Many others, each a few times' }}</td>
              <td class="when number">{{ item.count.toLocaleString() }}</td>
            </tr>
          </template>
        </VDataTable>
      </template>
    </template>
  </section>
</template>

<style scoped>
.misses {
  padding-bottom: 20px;
}
h2 {
  margin: 0;
  padding: 18px 16px 2px;
  font-size: 15px;
  font-weight: 650;
}
h2 + p {
  margin: 0;
  padding: 0 16px 6px;
  color: var(--soft);
}
tr {
  cursor: default;
}
small {
  display: block;
  font-size: 12px;
  color: var(--soft);
}
.address {
  overflow-wrap: anywhere;
}
.number {
  text-align: right;
  font-variant-numeric: tabular-nums;
  white-space: nowrap !important;
}
</style>
