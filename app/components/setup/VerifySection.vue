<script setup lang="ts">
import { z } from 'zod'
import { formatSize } from '~~/core/files/size'
import { verifyStateSchema, type StoreFinding, type VerifyState } from '~~/core/trust/trustReports'

const settingsSchema = z.object({ check: z.boolean() })

/** Reads every stored byte again, and says what is no longer as it was. */
const state = ref<VerifyState>()
const problem = ref('')
const backup = ref('')

async function tend(method: 'GET' | 'POST' | 'DELETE' = 'GET') {
  problem.value = ''
  try {
    state.value = await ask(
      verifyStateSchema,
      '/verify',
      method,
      method === 'POST' ? { ...(backup.value.trim() && { from: backup.value.trim() }) } : undefined,
    )
  } catch (error) {
    problem.value = wordsOf(error)
  }
}
const checks = ref(false)
onMounted(async () => {
  await tend()
  checks.value = (await ask(settingsSchema, '/delivery-settings')).check
})
async function saveChecks() {
  try {
    checks.value = (await ask(settingsSchema, '/delivery-settings', 'PUT', { check: checks.value })).check
    useNotices().say(checks.value ? 'Every download is checked from now on.' : 'Downloads are sent without that check again.', {
      tone: 'works',
    })
  } catch (error) {
    checks.value = !checks.value
    problem.value = wordsOf(error)
  }
}
const running = computed(() => state.value?.state === 'running')
const { pause, resume } = useIntervalFn(() => tend(), 500, { immediate: false })
watch(running, on => (on ? resume() : pause()))

const KIND_WORDS: Record<StoreFinding['kind'], string> = { missing: 'missing', damaged: 'damaged', stray: 'belongs to no file' }
const HEADERS = [
  { title: 'What', key: 'kind' },
  { title: 'Needed by', key: 'files', sortable: false },
  { title: 'Mended', key: 'mended' },
]
const words = computed(() => {
  const { state: how, done, total, bytes, finished, findings } = state.value!
  if (how === 'never') return 'Nothing has been verified yet.'
  if (how === 'running') return `${done.toLocaleString()} of ${total.toLocaleString()} read, ${formatSize(bytes)}.`
  const when = finished ? longDate(finished) : ''
  if (how === 'failed') return `Verifying failed on ${when}: ${state.value!.error}`
  if (how === 'stopped') return `Stopped on ${when} after ${done.toLocaleString()} of ${total.toLocaleString()}.`
  const wrong = state.value!.database ?? []
  if (wrong.length)
    return `${when}: the database is damaged. ${wrong.join(' ')} Restore a backup on the machine: npm run trough restore FOLDER.`
  return findings.length
    ? `${when}: ${counted(findings.length, 'finding')} in ${total.toLocaleString()} stored files.`
    : `${when}: all ${total.toLocaleString()} stored files, ${formatSize(bytes)}, are byte for byte as they came in.`
})
</script>

<template>
  <section v-if="state" class="verify" aria-labelledby="verify-head">
    <h2 id="verify-head">Are all bytes as they came in?</h2>
    <p :class="{ fine: state.state === 'done' && !state.findings.length && !state.database?.length }" aria-live="polite">{{ words }}</p>
    <VProgressLinear v-if="running" aria-label="Verifying" :model-value="(100 * state.done) / Math.max(1, state.total)" />
    <VDataTable v-if="state.findings.length" :headers="HEADERS" :items="state.findings" item-value="sha256" class="findings">
      <template #[`item.kind`]="{ item }">
        <span :title="item.sha256">{{ formatSize(item.size) }}, {{ KIND_WORDS[item.kind] }}</span>
      </template>
      <template #[`item.files`]="{ item }">
        <template v-for="(file, index) in item.files" :key="file.id + file.edition"
          >{{ index ? ', ' : '' }}<NuxtLink :to="`/desk/files/${file.id}`">{{ file.title }}</NuxtLink
          >, edition {{ file.edition }}</template
        ><template v-if="!item.files.length">nothing</template>
      </template>
      <template #[`item.mended`]="{ item }">
        <span :class="{ open: !item.mended }">{{ item.mended ?? 'Put the same file in again, or name a backup below.' }}</span>
      </template>
    </VDataTable>
    <VTextField
      v-model="backup"
      label="A backup on this machine to mend from, if you have one"
      class="mono"
      spellcheck="false"
      placeholder="/media/backup/trough"
    />
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div class="acts">
      <VBtn v-if="running" variant="outlined" @click="tend('DELETE')">Stop</VBtn>
      <VBtn v-else variant="outlined" @click="tend('POST')">Read them all again</VBtn>
      <span class="hint">Every file is held against its SHA-256. Visitors notice nothing of it.</span>
    </div>
    <VCheckbox
      v-model="checks"
      label="Check bytes before every download, too."
      hint="A download then begins later, about a second for each gigabyte; damaged bytes never leave."
      @update:model-value="saveChecks"
    />
  </section>
</template>

<style scoped>
.verify {
  display: grid;
  gap: 8px;
}
.fine {
  color: #3c6530;
  font-weight: 600;
}
.findings :deep(td) {
  white-space: normal !important;
}
.open {
  color: #9a4420;
}
</style>
