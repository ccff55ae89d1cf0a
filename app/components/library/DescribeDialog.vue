<script setup lang="ts">
import type { FileItem } from '~~/core/files/fileItem'

/** Says something of many files at once; what is left empty stays as it is. */
const emit = defineEmits<{ close: [] }>()
const selection = useSelection()
const library = useLibrary()
const files = ref<FileItem[]>([])
const description = ref('')
const changeDescription = ref(false)
const addTags = ref<string[]>([])
const removeTags = ref<string[]>([])
const picture = ref<FileItem>()
const finding = ref(false)
const problem = ref('')

onMounted(() =>
  selection.attempt(async () => {
    files.value = await library.meet(selection.chosen.files)
    const [first] = files.value
    if (first && files.value.every(file => file.description === first.description)) description.value = first.description
  }),
)
const present = computed(() => [...new Set(files.value.flatMap(file => file.tags))].sort())

async function save() {
  problem.value = ''
  try {
    await selection.describe({
      files: selection.chosen.files,
      addTags: addTags.value,
      removeTags: removeTags.value,
      ...(changeDescription.value && { description: description.value }),
      ...(picture.value && { picture: picture.value.id }),
    })
    emit('close')
  } catch (error) {
    problem.value = wordsOf(error)
  }
}
</script>

<template>
  <VDialog :model-value="true" aria-labelledby="describe-head" @update:model-value="emit('close')">
    <form class="dialog" @submit.prevent="save">
      <h2 id="describe-head">
        {{ files.length === 1 ? `Describe “${files[0]!.title}”` : `Describe ${counted(files.length, 'file')} at once` }}
      </h2>
      <TagField v-model="addTags" v-focus label="Add tags" class="wide" />
      <fieldset v-if="present.length" class="field wide">
        <legend>Take tags off</legend>
        <span class="tags"><VCheckbox v-for="tag in present" :key="tag" v-model="removeTags" :value="tag" :label="tag" /></span>
      </fieldset>
      <VTextarea
        v-model="description"
        :label="files.length === 1 ? 'Description' : 'Description, for all of them'"
        class="wide"
        rows="3"
        maxlength="2000"
        @update:model-value="changeDescription = true"
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
          family="picture"
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
      <div class="acts"><VBtn type="submit" variant="flat">Save</VBtn><VBtn @click="emit('close')">Cancel</VBtn></div>
    </form>
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
