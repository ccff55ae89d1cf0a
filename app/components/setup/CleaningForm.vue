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
    <label class="line"
      >Deleted files stay in the bin for <input v-model.number="rules.binDays" type="number" min="1" max="3650" required /> days.</label
    >
    <fieldset>
      <legend>Earlier editions</legend>
      <label class="line"><input v-model="keepAll" type="radio" name="editions" :value="true" /> All are kept.</label>
      <label class="line"
        ><input v-model="keepAll" type="radio" name="editions" :value="false" /> The newest
        <input
          v-model.number="few"
          type="number"
          min="0"
          max="1000"
          aria-label="How many earlier editions are kept"
          :disabled="keepAll"
          @change="rules.keepEditions = few"
        />
        of each file are kept,</label
      >
      <label class="line inner"
        >and all that are younger than
        <input v-model.number="rules.editionDays" type="number" min="0" max="3650" :disabled="keepAll" /> days.</label
      >
    </fieldset>
    <p class="hint" aria-live="polite">{{ words }} The current edition, those that wait and those with a public number always stay.</p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div class="acts">
      <button type="submit" class="plain strong">{{ freed?.bytes ? 'Save, and clean now' : 'Save the rules' }}</button>
    </div>
  </form>
</template>

<style scoped>
.cleaning {
  display: grid;
  gap: 8px;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
legend {
  padding: 0 0 3px;
  color: var(--soft);
  font-size: 12.5px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.inner {
  padding-left: 22px;
}
input[type='number'] {
  width: 68px;
  height: 28px;
  padding: 0 6px;
  font: inherit;
  border: 1px solid #95a39f;
  border-radius: 4px;
  background: #fff;
}
input[type='number']:disabled {
  background: #edf0ef;
  color: var(--soft);
}
input[type='radio'] {
  accent-color: var(--water);
  margin: 0;
  width: 15px;
  height: 15px;
}
</style>
