<script setup lang="ts">
import { fileChangeSchema, type FileItem } from '~~/core/files/fileItem'

/** Gives a file another address; the old one leads on. */
const props = defineProps<{ file: FileItem }>()
const emit = defineEmits<{ done: [] }>()
const library = useLibrary()
const open = ref(false)
const { field, submit, problem, busy, reset, leave } = useForm({
  schema: fileChangeSchema.pick({ handle: true }).required(),
  begin: () => ({ handle: props.file.handle }),
  send: async ({ handle }) => {
    await library.change(props.file.id, { handle })
    open.value = false
    emit('done')
  },
})

function cancel() {
  open.value = false
  reset()
}
</script>

<template>
  <VForm v-if="open" class="handle" @submit.prevent="submit" @keydown.esc.stop="leave(cancel)">
    <VTextField v-focus v-bind="field('handle')" label="New address" prefix="/files/" maxlength="80" />
    <p class="hint">The old address leads on to the new one, for ever.</p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div class="acts"><VBtn type="submit" variant="outlined" :loading="busy">Change</VBtn><VBtn @click="cancel">Cancel</VBtn></div>
  </VForm>
  <VBtn v-else @click="open = true">Change the address…</VBtn>
</template>

<style scoped>
.handle {
  display: grid;
  gap: 6px;
  padding: 8px 0;
}
</style>
