<script setup lang="ts">
import { mdiArrowRightThin, mdiTrayArrowDown } from '@mdi/js'
import { formatExactSize, formatSize } from '~~/core/files/size'
import type { FileItem } from '~~/core/files/item'

const props = defineProps<{ file: FileItem }>()
const library = useLibrary()
const tray = useTray()
const placer = usePlacer()
const route = useRoute()
const notices = useNotices()
const deleting = ref(false)

const open = computed(() => route.path === `/desk/files/${props.file.id}`)

async function restore() {
  try {
    await library.restore(props.file.id)
    notices.say(`"${props.file.title}" is back in the library.`, { tone: 'works' })
  }
  catch (error) {
    notices.say(wordsOf(error), { tone: 'attention' })
  }
}

function onKey(event: KeyboardEvent) {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  if (event.key === 'p') placer.current?.place(props.file)
  else if (event.key === ' ') tray.pickUp(props.file.id)
  else if (event.key === 'Delete' && !props.file.deleted) deleting.value = true
  else return
  event.preventDefault()
}
</script>

<template>
  <li class="file-row" :class="{ open }" draggable="true" @dragstart="dragFiles($event, [file.id])">
    <TypeTag :tag="file.tag" :family="file.family" />
    <span class="name">
      <NuxtLink :to="`/desk/files/${file.id}`" class="title" :title="`${file.title}\n${file.fileName}`" draggable="false" @keydown="onKey">{{ file.title }}</NuxtLink>
      <span v-if="file.remarks.length" class="mark" :title="file.remarks.join(' ')"><span class="tr-spoken">Needs a look.</span>!</span>
    </span>
    <span class="size num" :title="formatExactSize(file.size)">{{ formatSize(file.size) }}</span>
    <span class="date" :title="longDate(file.changed)">{{ shortDate(file.changed) }}</span>
    <span class="used" :class="{ not: !file.uses }">{{ file.uses ? counted(file.uses, 'place') : 'not used' }}</span>
    <span class="wide num">{{ file.downloads.toLocaleString() }}</span>
    <span class="acts">
      <button v-if="file.deleted" type="button" class="plain" @click="restore">Restore</button>
      <template v-else>
        <button type="button" class="plain" :aria-label="`Pick up ${file.title}`" title="Pick up into the trough (Space)" @click="tray.pickUp(file.id)"><VIcon :icon="mdiTrayArrowDown" size="16" /></button>
        <button v-if="placer.current" type="button" class="plain" :aria-label="`Place ${file.title} on the page`" title="Place on the page (P)" @click="placer.current.place(file)">Place<VIcon :icon="mdiArrowRightThin" size="18" /></button>
      </template>
    </span>
    <DeleteFileDialog v-if="deleting" :file="file" @close="deleting = false" @done="deleting = false" />
  </li>
</template>

<style scoped>
.file-row { position: relative; display: grid; grid-template-columns: var(--cols); gap: 0 10px; align-items: center; height: 32px; padding: 0 10px; border-bottom: 1px solid #E4EAE8; cursor: grab; }
.file-row:hover, .file-row:focus-within { background: #F1F6F5; }
.file-row.open { background: #DDEBE9; box-shadow: inset 3px 0 var(--water); }
.name { display: flex; gap: 6px; min-width: 0; }
.title { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; color: var(--ink); text-decoration: none; }
.title:hover { text-decoration: underline; text-underline-offset: 3px; }
.mark { flex: none; width: 16px; text-align: center; font-weight: 700; line-height: 16px; align-self: center; color: #fff; background: #9A4420; border-radius: 3px; }
.size { font: 12px 'IBM Plex Mono', monospace; }
.num { text-align: right; }
.date, .used { white-space: nowrap; color: var(--soft); font-size: 12.5px; }
.used { color: var(--ink); }
.used.not { color: var(--soft); }
.wide { display: none; }
.acts { position: absolute; right: 4px; display: flex; gap: 2px; padding-left: 14px; background: linear-gradient(90deg, transparent, #F1F6F5 14px); opacity: 0; }
.file-row:hover .acts, .acts:focus-within { opacity: 1; }
@container (min-width: 560px) { .wide { display: block; } }
@container (max-width: 400px) {
  .file-row { grid-template-columns: 48px auto auto auto; height: 52px; grid-template-rows: 26px 20px; justify-content: start; gap: 0 12px; }
  .file-row > :first-child { grid-row: 1 / 3; }
  .name { grid-column: 2 / -1; }
}
</style>
