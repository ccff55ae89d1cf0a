<script setup lang="ts">
import type { FileItem } from '~~/core/files/fileItem'
import { describeSchema } from '~~/core/files/selection'

/** Says something of many files at once; what is left empty stays as it is. */
const emit = defineEmits<{ close: [] }>()
const selection = useSelection()
const library = useLibrary()
const files = ref<FileItem[]>([])
const picture = ref<FileItem>()
const finding = ref(false)
/** what all of them say already */
const said = ref('')
const { field, submit, problem, busy, renew, leave } = useForm({
  schema: describeSchema.pick({ description: true, addTags: true, removeTags: true }).required(),
  begin: () => ({ description: said.value, addTags: [] as string[], removeTags: [] as string[] }),
  send: async ({ description, ...tags }) => {
    await selection.describe({
      files: selection.chosen.files,
      ...tags,
      ...(description !== said.value && { description }),
      ...(picture.value && { picture: picture.value.id }),
    })
    emit('close')
  },
})

onMounted(() =>
  selection.attempt(async () => {
    files.value = await library.meet(selection.chosen.files)
    const [first] = files.value
    if (first && files.value.every(file => file.description === first.description)) said.value = first.description
    renew()
  }),
)
const present = computed(() => [...new Set(files.value.flatMap(file => file.tags))].sort())
</script>

<template>
  <VDialog :model-value="true" aria-labelledby="describe-head" @update:model-value="leave(() => emit('close'))">
    <VForm class="dialog" @submit.prevent="submit">
      <h2 id="describe-head">
        {{ files.length === 1 ? `Describe “${files[0]!.title}”` : `Describe ${counted(files.length, 'file')} at once` }}
      </h2>
      <TagField v-focus v-bind="field('addTags')" label="Add tags" class="wide" />
      <fieldset v-if="present.length" class="field wide">
        <legend>Take tags off</legend>
        <span class="tags"><VCheckbox v-for="tag in present" :key="tag" v-bind="field('removeTags')" :value="tag" :label="tag" /></span>
      </fieldset>
      <VTextarea
        v-bind="field('description')"
        :label="files.length === 1 ? 'Description' : 'Description, for all of them'"
        class="wide"
        rows="3"
        maxlength="2000"
      />
      <div class="field wide picture">
        <span>A picture that stands for {{ files.length === 1 ? 'it' : 'them' }}</span>
        <span class="acts"
          ><FilePicture v-if="picture" :file="picture" class="thumb" /><VBtn @click="finding = !finding">
            {{ picture ? `“${picture.title}”, another…` : 'Choose a picture…' }}
          </VBtn></span
        >
        <FileFinder
          v-if="finding"
          label="Find a picture"
          :types="['picture']"
          @choose="
            $event => {
              picture = $event
              finding = false
            }
          "
          @close="finding = false"
        />
      </div>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="acts"><VBtn type="submit" variant="flat" :loading="busy">Save</VBtn><VBtn @click="emit('close')">Cancel</VBtn></div>
    </VForm>
  </VDialog>
</template>

<style scoped>
.wide {
  width: 100%;
}
.tags {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
}
.thumb {
  width: 40px;
  height: 40px;
}
</style>
