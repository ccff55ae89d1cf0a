<script setup lang="ts">
import { fold } from '~~/core/find/fold'
import type { FolderItem } from '~~/core/folders/folderItem'

/** Finds a folder by part of its name, or makes one. */
const props = defineProps<{
  label: string
  /** folders that cannot be chosen, nor what lies in them */
  except?: string[]
}>()
const place = defineModel<string | null>({ required: true })
const emit = defineEmits<{ take: [] }>()
const folders = useFolders()
const text = ref('')
const problem = ref('')
const field = ref<HTMLInputElement>()
const list = useId()

interface Choice {
  id: string | null
  name: string
  way: string
}
const wayTo = (folder: FolderItem) =>
  folders.tree
    .pathTo(folder.parent)
    .map(({ name }) => name)
    .join(' › ')
const choices = computed<Choice[]>(() => {
  const pieces = fold(text.value).split(/\s+/).filter(Boolean)
  const all: Choice[] = [
    { id: null, name: 'Top of the library', way: '' },
    ...folders.tree.all.map(folder => ({ id: folder.id, name: folder.name, way: wayTo(folder) })),
  ]
  const barred = new Set((props.except ?? []).flatMap(id => folders.tree.below(id).map(folder => folder.id)))
  return all
    .filter(({ id, name, way }) => !barred.has(id ?? '') && pieces.every(piece => fold(`${way} ${name}`).includes(piece)))
    .sort((a, b) =>
      a.id === null ? -1 : b.id === null ? 1 : `${a.way} ${a.name}`.localeCompare(`${b.way} ${b.name}`, undefined, { numeric: true }),
    )
    .slice(0, 200)
})
const exact = computed(() => choices.value.some(choice => fold(choice.name) === fold(text.value.trim())))

watch(text, () => {
  if (text.value && choices.value[0] && !choices.value.some(choice => choice.id === place.value)) place.value = choices.value[0].id
})
onMounted(() => field.value?.focus())

async function create() {
  problem.value = ''
  try {
    const folder = await folders.create(text.value, place.value)
    text.value = ''
    place.value = folder.id
  } catch (error) {
    problem.value = wordsOf(error)
  }
}

function onKey(event: KeyboardEvent) {
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (step) {
    const at = choices.value.findIndex(choice => choice.id === place.value)
    place.value = choices.value[Math.max(0, Math.min(choices.value.length - 1, at + step))]?.id ?? null
    void nextTick(() => document.getElementById(`${list}-${place.value ?? 'top'}`)?.scrollIntoView({ block: 'nearest' }))
  } else if (event.key === 'Enter') emit('take')
  else return
  event.preventDefault()
}
</script>

<template>
  <div class="chooser">
    <VTextField
      ref="field"
      v-model="text"
      v-field-role="'combobox'"
      type="search"
      :aria-label="label"
      aria-expanded="true"
      :aria-controls="list"
      :aria-activedescendant="`${list}-${place ?? 'top'}`"
      placeholder="Part of a folder’s name"
      autocomplete="off"
      spellcheck="false"
      @keydown="onKey"
    />
    <ul :id="list" role="listbox" :aria-label="label">
      <li
        v-for="choice in choices"
        :id="`${list}-${choice.id ?? 'top'}`"
        :key="choice.id ?? 'top'"
        role="option"
        :aria-selected="choice.id === place"
        @click="place = choice.id"
        @dblclick="emit('take')"
      >
        <span class="name">{{ choice.name }}</span><span class="way">{{ choice.way }}</span>
      </li>
      <li v-if="!choices.length" class="none" role="option" aria-disabled="true" :aria-selected="false">No folder has that in its name.</li>
    </ul>
    <VBtn v-if="text.trim() && !exact" @click="create"> Make the folder “{{ text.trim() }}” in {{ folders.nameOf(place) }} </VBtn>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.chooser {
  display: grid;
  gap: 6px;
  width: 100%;
  justify-items: start;
}
ul {
  list-style: none;
  width: 100%;
  box-sizing: border-box;
  height: 250px;
  margin: 0;
  padding: 4px;
  overflow: auto;
  border: 1px solid var(--line);
  border-radius: 4px;
}
li {
  display: flex;
  align-items: center;
  gap: 10px;
  height: 28px;
  padding: 0 8px;
  border-radius: 3px;
  cursor: pointer;
  white-space: nowrap;
}
li:hover {
  background: #f1f6f5;
}
li[aria-selected='true'] {
  background: #d3e5e2;
  box-shadow: inset 3px 0 var(--water);
}
.name {
  font-weight: 600;
}
.way {
  color: var(--soft);
  font-size: 12.5px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.none {
  color: var(--soft);
}
</style>
