<script setup lang="ts">
import type { FileItem } from '~~/core/files/fileItem'

/** Gives a file another address; the old one leads on. */
const props = defineProps<{ file: FileItem }>()
const emit = defineEmits<{ done: [] }>()
const library = useLibrary()
const open = ref(false)
const handle = ref(props.file.handle)
const problem = ref('')

async function save() {
  problem.value = ''
  try {
    await library.change(props.file.id, { handle: handle.value.trim() })
    open.value = false
    emit('done')
  } catch (error) {
    problem.value = wordsOf(error)
  }
}

function cancel() {
  open.value = false
  handle.value = props.file.handle
}
</script>

<template>
  <form v-if="open" class="handle" @submit.prevent="save">
    <label class="field"
      ><span>New address</span><span class="with-path"><code>/files/</code><input v-model="handle" type="text" maxlength="80" /></span
    ></label>
    <p class="hint">The old address leads on to the new one, for ever.</p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div class="acts">
      <button type="submit" class="plain strong">Change</button><button type="button" class="plain" @click="cancel">Cancel</button>
    </div>
  </form>
  <button v-else type="button" class="plain" @click="open = true">Change the address…</button>
</template>

<style scoped>
.handle {
  display: grid;
  gap: 6px;
  padding: 8px 0;
}
.with-path {
  display: flex;
  align-items: center;
  gap: 4px;
}
.with-path input {
  flex: 1;
}
</style>
