<script setup lang="ts">
import type { FolderItem } from '~~/core/folders/folderItem'

/** A folder's name, written over where it stands. */
const props = defineProps<{ folder: FolderItem }>()
const emit = defineEmits<{ done: [] }>()
const folders = useFolders()
const name = ref(props.folder.name)
const problem = ref('')
const field = ref<HTMLInputElement>()
let ended = false

onMounted(() => {
  field.value?.focus()
  field.value?.select()
})

function end() {
  ended = true
  emit('done')
}

async function save() {
  if (ended) return
  if (name.value.trim() === props.folder.name || !name.value.trim()) return end()
  try {
    await folders.change(props.folder.id, { name: name.value })
    end()
  } catch (error) {
    problem.value = wordsOf(error)
    field.value?.focus()
  }
}
</script>

<template>
  <span class="folder-name" @click.stop @keydown.stop>
    <VTextField
      ref="field"
      v-model="name"
      class="small"
      maxlength="120"
      :aria-label="`New name of ${folder.name}`"
      :aria-invalid="!!problem"
      :title="problem"
      @keydown.enter="save"
      @keydown.esc="end"
      @blur="save"
      @pointerdown.stop
    />
    <span v-if="problem" class="problem" role="alert">{{ problem }}</span>
  </span>
</template>

<style scoped>
.folder-name {
  position: relative;
  flex: 1;
  min-width: 0;
}
.v-input {
  font: inherit;
  font-weight: 600;
}
.problem {
  position: absolute;
  z-index: 20;
  top: 29px;
  left: 0;
  padding: 5px 8px;
  background: #fff;
  border: 1px solid #9a4420;
  border-radius: 4px;
  font-size: 12.5px;
}
</style>
