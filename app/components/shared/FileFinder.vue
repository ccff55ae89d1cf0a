<script setup lang="ts">
import type { FileItem, FoundFile } from '~~/core/files/item'
import type { Family } from '~~/core/files/mediaType'
import { formatSize } from '~~/core/files/size'

/** Finds a file by part of its name, or takes one from the computer. */
const props = defineProps<{
  label: string
  /** offers a file of the computer, too */
  computer?: boolean
  /** files that are not to be offered */
  except?: string[]
  /** only files of this family */
  family?: Family
  /** bundles are not offered */
  noBundles?: boolean
}>()
const emit = defineEmits<{ choose: [file: FileItem], computer: [], close: [] }>()

const text = ref('')
const found = ref<FoundFile[]>([])
const active = ref(0)
const field = ref<HTMLInputElement>()
const list = useId()
const count = computed(() => found.value.length + (props.computer ? 1 : 0))

const { search, settled } = useFileSearch(8, () => props.family)
watch(text, async (q) => {
  const answer = await search(q)
  if (!answer) return
  found.value = answer.items.filter(file => !props.except?.includes(file.id) && !(props.noBundles && file.bundle))
  active.value = 0
}, { immediate: true })

onMounted(() => field.value?.focus())

function take(index: number) {
  const file = found.value[index]
  if (file) emit('choose', file)
  else if (props.computer) emit('computer')
}

function onKey(event: KeyboardEvent) {
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (step) active.value = (active.value + step + count.value) % Math.max(1, count.value)
  // Fast typists press Enter before the answer is there.
  else if (event.key === 'Enter') void settled().then(() => take(active.value))
  else if (event.key === 'Escape') emit('close')
  else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <div class="finder" role="dialog" :aria-label="label" @keydown="onKey">
    <input
      ref="field" v-model="text" type="text" role="combobox" aria-expanded="true" aria-autocomplete="list" :aria-controls="list"
      :aria-activedescendant="count ? `${list}-${active}` : undefined" :aria-label="label" placeholder="A name, or words inside" autocomplete="off" spellcheck="false"
    >
    <ul :id="list" role="listbox" :aria-label="label">
      <li
        v-for="(file, index) in found" :id="`${list}-${index}`" :key="file.id" role="option" :aria-selected="index === active"
        @mousemove="active = index" @mousedown.prevent @click="take(index)"
      >
        <TypeTag :tag="file.tag" :family="file.family" /><span class="words"><span class="title">{{ file.title }}</span><PassageLine v-if="file.match?.by === 'inside'" :part="file.match.part" :passage="file.match.passage" /></span><span class="size">{{ formatSize(file.size) }}</span>
      </li>
      <li
        v-if="computer" :id="`${list}-${found.length}`" role="option" class="computer" :aria-selected="active === found.length"
        @mousemove="active = found.length" @mousedown.prevent @click="take(found.length)"
      >
        From this computer…
      </li>
      <li v-if="!count" class="none" role="option" aria-disabled="true" :aria-selected="false">No file has that in its name or inside.</li>
    </ul>
  </div>
</template>

<style scoped>
.finder { width: 340px; max-width: calc(100vw - 24px); background: #fff; border: 1px solid var(--ink); border-radius: 4px; }
input { width: 100%; height: 36px; padding: 0 10px; border: 0; border-bottom: 1px solid var(--line); border-radius: 4px 4px 0 0; font-size: 14px; }
input:focus-visible { outline: none; box-shadow: inset 0 -2px var(--water); }
ul { list-style: none; margin: 0; padding: 4px; max-height: 300px; overflow: auto; }
li { display: flex; align-items: center; gap: 8px; min-height: 30px; padding: 0 6px; border-radius: 3px; cursor: pointer; }
li[aria-selected='true'] { background: #DDEBE9; box-shadow: inset 3px 0 var(--water); }
.words { flex: 1; display: grid; min-width: 0; }
.title { min-width: 0; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.size { font: 12px 'IBM Plex Mono', monospace; color: var(--soft); }
.computer { border-top: 1px solid var(--line); border-radius: 0; margin-top: 3px; }
.none { color: var(--soft); cursor: default; }
</style>
