<script setup lang="ts">
import type { FileItem } from '~~/core/files/fileItem'
import { gateOf } from '~~/core/gate/standing'

/** A file's description, tags and own picture; each is kept as it is changed. */
const props = defineProps<{ file: FileItem }>()
const rights = useRights()
const library = useLibrary()
const selection = useSelection()
const folders = useFolders()
const mayBeSeen = useLooking()
const description = ref('')
const tags = ref<string[]>([])
const finding = ref(false)
const edits = computed(() => rights.mayFile('edit', props.file))
const picture = computed(() => (props.file.picture ? library.known.get(props.file.picture) : undefined))

watch(
  () => props.file,
  async (file, before) => {
    if (file.id !== before?.id || file.description !== before.description) description.value = file.description
    tags.value = file.tags
    if (file.picture) await selection.attempt(() => library.meet([file.picture!]))
  },
  { immediate: true },
)

const save = (changed: Parameters<typeof library.change>[1]) => selection.attempt(() => library.change(props.file.id, changed))

function saveTags(next: string[]) {
  tags.value = next
  void save({ tags: next })
}

function saveDescription() {
  if (description.value.trim() !== props.file.description) void save({ description: description.value })
}
</script>

<template>
  <VForm class="description" :readonly="!edits" @submit.prevent>
    <VTextarea
      v-model="description"
      label="Description"
      rows="2"
      maxlength="2000"
      placeholder="What a helper, or you next year, should know"
      @change="saveDescription"
    />
    <SaidSelect
      :disabled="!edits || !rights.may('publish')"
      :model-value="file.see"
      label="Before visitors take it"
      yes="They may look at what is in it"
      no="They do not see what is in it"
      :above="mayBeSeen({ see: null, folder: file.folder })"
      @update:model-value="save({ see: $event })"
    />
    <GateSelect
      :model-value="file.gate"
      label="Who may have it"
      :title="file.title"
      :above="gateOf({ gate: null, folder: file.folder }, folders.tree)"
      @update:model-value="save({ gate: $event })"
    />
    <TagField :model-value="tags" label="Tags" @update:model-value="saveTags" />
    <div v-if="edits || picture" class="field">
      <span>Picture that stands for it</span>
      <span class="acts">
        <FilePicture v-if="picture" :file="picture" class="thumb" />
        <VBtn v-if="edits" @click="finding = !finding">{{ picture ? 'Another…' : 'Choose a picture…' }}</VBtn>
        <VBtn v-if="picture && edits" @click="save({ picture: null })">Take it off</VBtn>
      </span>
      <FileFinder
        v-if="finding"
        label="Find a picture"
        :types="['picture']"
        @choose="
          $event => {
            save({ picture: $event.id })
            finding = false
          }
        "
        @close="finding = false"
      />
    </div>
  </VForm>
</template>

<style scoped>
.description {
  display: grid;
  gap: 12px;
}
textarea {
  width: 100%;
  box-sizing: border-box;
}
.thumb {
  width: 44px;
  height: 44px;
}
</style>
