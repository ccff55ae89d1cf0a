<script setup lang="ts">
import { MARKS, type FolderItem, type Mark } from '~~/core/folders/folderItem'

/** A folder's name, mark, description and order; or a new folder. */
const props = defineProps<{ folder?: FolderItem }>()
const emit = defineEmits<{ close: []; remove: []; inside: [] }>()
const folders = useFolders()
const selection = useSelection()
const listing = useListing()
const form = reactive({
  name: props.folder?.name ?? '',
  mark: props.folder?.mark ?? (null as Mark | null),
  description: props.folder?.description ?? '',
  ownOrder: props.folder?.ownOrder ?? false,
})
const problem = ref('')

async function save() {
  problem.value = ''
  try {
    if (props.folder) await folders.change(props.folder.id, form)
    else {
      const { name, ...rest } = form
      const made = await folders.create(name, listing.folder)
      if (rest.mark || rest.description || rest.ownOrder) await folders.change(made.id, rest)
    }
    await useLibrary().refresh()
    emit('close')
  } catch (error) {
    problem.value = wordsOf(error)
  }
}
</script>

<template>
  <VDialog :model-value="true" aria-labelledby="folder-head" @update:model-value="emit('close')">
    <form class="dialog" @submit.prevent="save">
      <h2 id="folder-head">{{ folder ? `“${folder.name}”` : `New folder in ${folders.nameOf(listing.folder)}` }}</h2>
      <label class="field wide"><span>Name</span><input v-model="form.name" v-focus type="text" maxlength="120" required /></label>
      <fieldset class="field wide">
        <legend>Mark</legend>
        <span class="marks">
          <label v-for="mark in [null, ...MARKS]" :key="mark ?? 'none'"
            ><input v-model="form.mark" type="radio" name="mark" :value="mark" /><span
              ><i :class="mark ?? 'no-mark'" />{{ mark ?? 'none' }}</span
            ></label
          >
        </span>
      </fieldset>
      <label class="field wide"><span>Description</span><textarea v-model="form.description" rows="2" maxlength="2000" /></label>
      <label class="check"
        ><input v-model="form.ownOrder" type="checkbox" /> Keep my own order: drag files, or move them with Alt and the arrow keys</label
      >
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="acts">
        <button type="submit" class="main" :disabled="!form.name.trim()">{{ folder ? 'Save' : 'Make the folder' }}</button>
        <button type="button" class="plain" @click="emit('close')">Cancel</button>
        <button v-if="folder" type="button" class="plain" @click="emit('inside')">New folder in it…</button>
        <button
          v-if="folder"
          type="button"
          class="plain"
          title="Files in their folders, with all that is said of them and checksums (BagIt)"
          @click="selection.attempt(() => selection.downloadBag(folder!.id))"
        >
          Download as a bag
        </button>
        <button v-if="folder" type="button" class="plain clay" @click="emit('remove')">Delete the folder…</button>
      </div>
    </form>
  </VDialog>
</template>

<style scoped>
.wide {
  width: 100%;
}
.wide input,
textarea {
  width: 100%;
  box-sizing: border-box;
}
.marks {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.marks label {
  position: relative;
}
.marks input {
  position: absolute;
  inset: 0;
  opacity: 0;
  margin: 0;
  height: 100%;
}
.marks span {
  display: flex;
  align-items: center;
  gap: 7px;
  height: 28px;
  padding: 0 10px;
  border: 1px solid #95a39f;
  border-radius: 4px;
}
.marks input:checked + span {
  background: #cfe2df;
  border-color: var(--water);
  font-weight: 600;
}
.marks input:focus-visible + span {
  outline: 2px solid var(--water);
  outline-offset: 1px;
}
i {
  width: 7px;
  height: 16px;
  border-radius: 1px;
}
i.no-mark {
  background: #9dada9;
}
i.water {
  background: var(--water);
}
i.clay {
  background: var(--clay);
}
i.straw {
  background: var(--straw);
}
i.moss {
  background: var(--moss);
}
.check {
  display: flex;
  gap: 8px;
  align-items: flex-start;
  line-height: 1.4;
}
</style>
