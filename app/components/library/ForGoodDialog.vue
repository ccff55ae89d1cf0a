<script setup lang="ts">
import { formatSize } from '~~/core/files/size'
import { freedSchema, type Freed } from '~~/core/trust/trustReports'

/** Asks before files of the bin go for good, and says what that frees. */
const props = defineProps<{ /** left out: all of the bin */ files?: string[] }>()
const emit = defineEmits<{ close: []; done: [] }>()
const freed = ref<Freed>()
const problem = ref('')
const busy = ref(false)
const body = computed(() => ({ files: props.files ?? null }))

async function attempt(act: () => Promise<unknown>) {
  problem.value = ''
  try {
    await act()
  } catch (error) {
    problem.value = wordsOf(error)
  }
}
onMounted(() => attempt(async () => (freed.value = await ask(freedSchema, '/selection/frees', 'POST', body.value))))

const remove = () =>
  attempt(async () => {
    busy.value = true
    try {
      const { binned, bytes } = await ask(freedSchema, '/selection/for-good', 'POST', body.value)
      await Promise.all([useLibrary().refresh(), useSession().loadWarnings()])
      useNotices().say(`${counted(binned, 'file')} deleted for good${bytes ? `, ${formatSize(bytes)} freed` : ''}.`)
      emit('done')
    } finally {
      busy.value = false
    }
  })
</script>

<template>
  <VDialog :model-value="true" @update:model-value="emit('close')">
    <div class="dialog">
      <h2>{{ files ? 'Delete for good?' : 'Empty the bin?' }}</h2>
      <p v-if="freed">
        {{ counted(freed.binned, 'file') }} and all {{ freed.binned === 1 ? 'its' : 'their' }} editions go, and cannot be brought back.
        {{ freed.bytes ? `That frees ${formatSize(freed.bytes)}.` : 'That frees nothing: other files share their bytes.' }} Their addresses
        say from then on that they are gone.
      </p>
      <VProgressLinear v-else-if="!problem" indeterminate />
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="acts">
        <VBtn variant="outlined" color="clay" :loading="busy" :disabled="!freed?.binned" @click="remove">Delete for good</VBtn
        ><VBtn @click="emit('close')">Leave {{ freed?.binned === 1 ? 'it' : 'them' }} in the bin</VBtn>
      </div>
    </div>
  </VDialog>
</template>
