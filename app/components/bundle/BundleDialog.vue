<script setup lang="ts">
import { newBundleSchema } from '~~/core/bundle/bundleEntry'
import type { Selection } from '~~/core/files/selection'
import { handleFromFileName } from '~~/core/files/handle'
import { wordsForSelection } from '~/stores/selection'

/** Names a new bundle: its address is made of the name, and stays. */
const props = defineProps<{ things: Selection }>()
const emit = defineEmits<{ close: [] }>()
const folders = useFolders()
const only = props.things.folders.length === 1 && !props.things.files.length ? folders.nameOf(props.things.folders[0]!) : ''
const start = ref<HTMLInputElement>()
onMounted(() => start.value?.select())

const { fields, field, submit, problem, busy, leave } = useForm({
  schema: newBundleSchema.pick({ title: true }),
  begin: () => ({ title: only }),
  send: async ({ title }) => {
    await makeBundle(title, props.things)
    emit('close')
  },
})
const address = computed(() => fields.title.trim() && `/files/${handleFromFileName(`${fields.title.trim()}.zip`)}`)
</script>

<template>
  <VDialog :model-value="true" max-width="440" aria-labelledby="bundle-head" @update:model-value="leave(() => emit('close'))">
    <VForm class="dialog" @submit.prevent="submit">
      <h2 id="bundle-head">A bundle{{ things.files.length + things.folders.length ? ` of ${wordsForSelection(things)}` : '' }}</h2>
      <VTextField
        ref="start"
        v-bind="field('title')"
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
        <VBtn type="submit" variant="flat" :loading="busy">Make the bundle</VBtn><VBtn @click="emit('close')">Cancel</VBtn>
      </div>
    </VForm>
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
