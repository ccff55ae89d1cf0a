<script setup lang="ts">
import { formatSize } from '~~/core/files/size'
import { cleaningSchema, type Cleaning, type Freed, freedSchema } from '~~/core/trust/trustReports'

/** What is cleaned away by itself, and what that would free now. */
const emit = defineEmits<{ cleaned: [] }>()
const session = useSession()
const notices = useNotices()
const rules = ref<Cleaning>()
const freed = ref<Freed>()
/** what the field shows while editions are all kept */
const few = ref(3)

const { fields, field, submit, problem, busy, changed, reset } = useForm({
  schema: cleaningSchema,
  begin: () => rules.value ?? cleaningSchema.parse({}),
  send: async given => {
    const saved = await ask(cleaningSchema, '/cleaning', 'PUT', given)
    session.binDays = saved.binDays
    await tell('/cleaning/now', 'POST')
    notices.say(freed.value?.bytes ? `Saved, and ${formatSize(freed.value.bytes)} freed.` : 'Saved.', { tone: 'works' })
    await preview()
    emit('cleaned')
  },
})
useKeepWritten(changed)

const keepAll = computed({
  get: () => fields.keepEditions === null,
  set: all => {
    fields.keepEditions = all ? null : few.value
  },
})
watch(
  () => fields.keepEditions,
  keep => typeof keep === 'number' && (few.value = keep),
)

const { problem: unread, attempt } = useAttempt()
async function preview() {
  const { success, data } = cleaningSchema.safeParse(fields)
  freed.value = undefined
  if (success) await attempt(async () => (freed.value = await ask(freedSchema, '/cleaning/preview', 'POST', data)))
}
onMounted(() =>
  attempt(async () => {
    rules.value = await ask(cleaningSchema, '/cleaning')
    reset()
    watch(() => fields, preview, { deep: true, immediate: true })
  }),
)

const words = computed(() => {
  if (!freed.value) return ''
  const { editions, binned, bytes } = freed.value
  const parts = [...(editions ? [counted(editions, 'earlier edition')] : []), ...(binned ? [`${counted(binned, 'file')} in the bin`] : [])]
  return parts.length
    ? `By these rules ${parts.join(' and ')} would go now and free ${formatSize(bytes)}.`
    : 'By these rules nothing would go now.'
})
</script>

<template>
  <VForm v-if="rules" class="cleaning" aria-labelledby="cleaning-head" @submit.prevent="submit">
    <h2 id="cleaning-head">What is cleaned away</h2>
    <VNumberInput
      v-bind="field('binDays')"
      label="Deleted files and pages stay in the bin"
      suffix="days"
      :min="1"
      :max="3650"
      class="number"
    />
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
        @update:model-value="fields.keepEditions = few = $event ?? few"
      />
      <VNumberInput v-bind="field('editionDays')" label="And those younger than" suffix="days" :min="0" :max="3650" class="number" />
    </div>
    <p class="hint" aria-live="polite">{{ words }} The current edition, those that wait and those with a public number always stay.</p>
    <p v-if="problem || unread" class="problem" role="alert">{{ problem || unread }}</p>
    <div class="acts">
      <VBtn type="submit" variant="outlined" :loading="busy">{{ freed?.bytes ? 'Save, and clean now' : 'Save the rules' }}</VBtn>
    </div>
  </VForm>
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
