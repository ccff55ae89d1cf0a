<script setup lang="ts">
import { mdiClose } from '@mdi/js'

/** Tags, typed one after another: Enter or a comma ends one. */
defineProps<{ label: string; autofocus?: boolean }>()
const tags = defineModel<string[]>({ required: true })
const text = ref('')
const known = ref<string[]>([])
const list = useId()

onMounted(async () => {
  known.value = (await api<{ items: { tag: string }[] }>('/tags')).items.map(({ tag }) => tag)
})

function add() {
  const more = text.value
    .split(',')
    .map(tag => tag.trim().slice(0, 60))
    .filter(Boolean)
  text.value = ''
  if (more.length) tags.value = [...new Set([...tags.value, ...more])]
}

function onKey(event: KeyboardEvent) {
  if (event.key === ',' || (event.key === 'Enter' && text.value.trim())) add()
  else if (event.key === 'Backspace' && !text.value) tags.value = tags.value.slice(0, -1)
  else return
  event.preventDefault()
}
</script>

<template>
  <span class="tag-field">
    <span v-for="tag in tags" :key="tag" class="tag"
      >{{ tag
      }}<button type="button" :aria-label="`Take off ${tag}`" @click="tags = tags.filter(other => other !== tag)">
        <VIcon :icon="mdiClose" size="12" /></button
    ></span>
    <input
      v-model="text"
      v-focus="autofocus"
      type="text"
      :aria-label="label"
      :list="list"
      placeholder="Type a tag, then Enter"
      maxlength="60"
      autocomplete="off"
      @keydown="onKey"
      @change="add"
    />
    <datalist :id="list"><option v-for="tag in known" :key="tag" :value="tag" /></datalist>
  </span>
</template>

<style scoped>
.tag-field {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  padding: 3px;
  border: 1px solid #95a39f;
  border-radius: 4px;
  background: #fff;
}
.tag-field:focus-within {
  outline: 2px solid var(--water);
  outline-offset: 1px;
}
.tag {
  display: inline-flex;
  align-items: center;
  gap: 4px;
  height: 22px;
  padding: 0 3px 0 7px;
  background: #e3eae8;
  border-radius: 3px;
}
.tag button {
  display: grid;
  place-items: center;
  width: 18px;
  height: 18px;
  border-radius: 3px;
}
.tag button:hover {
  background: #c9d7d4;
}
input {
  flex: 1;
  min-width: 130px;
  height: 22px;
  border: 0;
}
input:focus-visible {
  outline: none;
}
</style>
