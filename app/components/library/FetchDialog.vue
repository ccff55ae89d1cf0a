<script setup lang="ts">
/** Fetches a file from a web address into the open folder. */
const props = defineProps<{ address: string }>()
const emit = defineEmits<{ close: [] }>()
const jobs = useJobs()
const listing = useListing()
const folders = useFolders()
const address = ref(props.address)
const problem = ref('')

async function go() {
  problem.value = ''
  try {
    await jobs.fetch(address.value, listing.folder)
    emit('close')
  } catch (error) {
    problem.value = wordsOf(error)
  }
}
</script>

<template>
  <VDialog :model-value="true" aria-labelledby="fetch-head" @update:model-value="emit('close')">
    <form class="dialog" @submit.prevent="go">
      <h2 id="fetch-head">Fetch a file from the web</h2>
      <label class="field wide"
        ><span>Its address</span
        ><input
          v-model="address"
          v-focus
          type="text"
          inputmode="url"
          placeholder="https://www.example.com/price-list.pdf"
          required
          spellcheck="false"
          autocomplete="off"
      /></label>
      <p class="hint">
        Trough’s server fetches it into {{ listing.folder ? `“${folders.nameOf(listing.folder)}”` : 'the top of the library' }}. It has to
        be reachable without signing in.
      </p>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="acts">
        <button type="submit" class="main" :disabled="!address.trim()">Fetch it</button
        ><button type="button" class="plain" @click="emit('close')">Cancel</button>
      </div>
    </form>
  </VDialog>
</template>

<style scoped>
.wide {
  width: 100%;
}
.wide input {
  width: 100%;
  box-sizing: border-box;
}
</style>
