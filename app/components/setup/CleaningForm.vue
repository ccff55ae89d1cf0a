<script setup lang="ts">
import { formatSize } from '~~/core/files/size'
import type { Cleaning, Freed } from '~~/core/trust/trustReports'

/** What is cleaned away by itself, and what that would free now. */
const emit = defineEmits<{ cleaned: [] }>()
const session = useSession()
const notices = useNotices()
const rules = ref<Cleaning>()
const freed = ref<Freed>()
const problem = ref('')
/** what the fields show while editions are all kept */
const few = ref(3)

const keepAll = computed({
  get: () => rules.value?.keepEditions === null,
  set: all => {
    rules.value!.keepEditions = all ? null : few.value
  },
})
watch(
  () => rules.value?.keepEditions,
  keep => typeof keep === 'number' && (few.value = keep),
)

async function preview() {
  problem.value = ''
  try {
    freed.value = await api<Freed>('/cleaning/preview', 'POST', rules.value!)
  } catch (error) {
    freed.value = undefined
    problem.value = wordsOf(error)
  }
}
onMounted(async () => {
  rules.value = await api<Cleaning>('/cleaning')
  watch(rules, preview, { deep: true, immediate: true })
})

const words = computed(() => {
  if (!freed.value) return ''
  const { editions, binned, bytes } = freed.value
  const parts = [...(editions ? [counted(editions, 'earlier edition')] : []), ...(binned ? [`${counted(binned, 'file')} in the bin`] : [])]
  return parts.length
    ? `By these rules ${parts.join(' and ')} would go now and free ${formatSize(bytes)}.`
    : 'By these rules nothing would go now.'
})

async function save() {
  problem.value = ''
  try {
    const saved = await api<Cleaning>('/cleaning', 'PUT', rules.value!)
    session.binDays = saved.binDays
    await api('/cleaning/now', 'POST')
    notices.say(freed.value?.bytes ? `Saved, and ${formatSize(freed.value.bytes)} freed.` : 'Saved.', { tone: 'works' })
    await preview()
    emit('cleaned')
  } catch (error) {
    problem.value = wordsOf(error)
  }
}
</script>

<template>
  <form v-if="rules" class="cleaning" aria-labelledby="cleaning-head" @submit.prevent="save">
    <h2 id="cleaning-head">What is cleaned away</h2>
    <VNumberInput v-model="rules.binDays" label="Deleted files stay in the bin" suffix="days" :min="1" :max="3650" class="number" />
    <VRadioGroup v-model="keepAll" label="Earlier editions">
      <VRadio :value="true" label="All are kept" />
      <VRadio :value="false" label="Only the newest of each file, and those that are still young" />
    </VRadioGroup>
    <div v-if="!keepAll" class="inner">
      <VNumberInput
        :model-value="few"
        label="Of each file, the newest"
        :min="0"
        :max="1000"
        class="number"
        @update:model-value="rules.keepEditions = few = $event ?? few"
      />
      <VNumberInput v-model="rules.editionDays" label="And those younger than" suffix="days" :min="0" :max="3650" class="number" />
    </div>
    <p class="hint" aria-live="polite">{{ words }} The current edition, those that wait and those with a public number always stay.</p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div class="acts">
      <VBtn type="submit" variant="outlined">{{ freed?.bytes ? 'Save, and clean now' : 'Save the rules' }}</VBtn>
    </div>
  </form>
</template>

<style scoped>
.cleaning {
  display: grid;
  gap: 8px;
}
.inner {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  padding-left: 30px;
}
.number {
  max-width: 230px;
}
</style>
