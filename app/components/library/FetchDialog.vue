<script setup lang="ts">
import { fetchFormSchema } from '~~/core/files/fetchForm'

/** Fetches a file from a web address into the open folder. */
const props = defineProps<{ address: string }>()
const emit = defineEmits<{ close: [] }>()
const jobs = useJobs()
const listing = useListing()
const folders = useFolders()
const { field, submit, problem, busy, leave } = useForm({
  schema: fetchFormSchema,
  begin: () => ({ address: props.address }),
  send: async ({ address }) => {
    await jobs.fetch(address, listing.folder)
    emit('close')
  },
})
const place = computed(() => (listing.folder ? `“${folders.nameOf(listing.folder)}”` : 'the top of the library'))
</script>

<template>
  <VDialog :model-value="true" aria-labelledby="fetch-head" @update:model-value="leave(() => emit('close'))">
    <VForm class="dialog" @submit.prevent="submit">
      <h2 id="fetch-head">Fetch a file from the web</h2>
      <VTextField
        v-focus
        v-bind="field('address')"
        label="Its address"
        class="wide"
        inputmode="url"
        placeholder="https://www.example.com/price-list.pdf"
        spellcheck="false"
        autocomplete="off"
      />
      <p class="hint">Trough’s server fetches it into {{ place }}. It has to be reachable without signing in.</p>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="acts"><VBtn type="submit" variant="flat" :loading="busy">Fetch it</VBtn><VBtn @click="emit('close')">Cancel</VBtn></div>
    </VForm>
  </VDialog>
</template>

<style scoped>
.wide {
  width: 100%;
}
</style>
