<script setup lang="ts">
import type { Selection } from '~~/core/files/selection'
import { handleFromFileName } from '~~/core/files/handle'
import { wordsForSelection } from '~/stores/selection'

/** Names a new bundle: its address is made of the name, and stays. */
const props = defineProps<{ things: Selection }>()
const emit = defineEmits<{ close: [] }>()
const folders = useFolders()
const only = props.things.folders.length === 1 && !props.things.files.length ? folders.nameOf(props.things.folders[0]!) : ''
const title = ref(only)
const problem = ref('')
const field = ref<HTMLInputElement>()
onMounted(() => field.value?.select())
const address = computed(() => title.value.trim() && `/files/${handleFromFileName(`${title.value.trim()}.zip`)}`)

async function make() {
  problem.value = ''
  try {
    await makeBundle(title.value, props.things)
    emit('close')
  } catch (error) {
    problem.value = wordsOf(error)
  }
}
</script>

<template>
  <VDialog :model-value="true" max-width="440" aria-labelledby="bundle-head" @update:model-value="emit('close')">
    <form class="dialog" @submit.prevent="make">
      <h2 id="bundle-head">A bundle{{ things.files.length + things.folders.length ? ` of ${wordsForSelection(things)}` : '' }}</h2>
      <VTextField
        ref="field"
        v-model="title"
        label="What visitors know it as"
        class="wide"
        maxlength="200"
        placeholder="Everything for the first evening"
      />
      <p class="hint">
        {{
          address
            ? 'Its address will be'
            : 'A zip with an address of its own, put together from what its files are whenever somebody downloads it.'
        }}
        <code v-if="address">{{ address }}</code>
      </p>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="acts">
        <VBtn type="submit" variant="flat" :disabled="!title.trim()">Make the bundle</VBtn><VBtn @click="emit('close')">Cancel</VBtn>
      </div>
    </form>
  </VDialog>
</template>

<style scoped>
.wide {
  width: 100%;
}
code {
  overflow-wrap: anywhere;
}
</style>
