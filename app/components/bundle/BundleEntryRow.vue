<script setup lang="ts">
import { mdiClose, mdiFolderOutline, mdiTableColumn, mdiTextBoxOutline } from '@mdi/js'
import type { BundleDetails, BundleEntry } from '~~/core/bundle/bundleEntry'
import { entryPath, withPath } from '~~/core/bundle/entryPath'
import { formatExactSize, formatSize } from '~~/core/files/size'

/** One thing that was put into a bundle, and where it lies in the zip. */
const props = defineProps<{ entry: BundleEntry; now: BundleDetails['now'][string] }>()
const emit = defineEmits<{ change: [entry: BundleEntry]; remove: []; edit: [] }>()
const library = useLibrary()
const catalogues = useCatalogues()
const GONE: Record<BundleEntry['kind'], string> = {
  file: 'This file is in the bin: it is not sent.',
  folder: 'This folder is gone: nothing of it is sent.',
  field: 'This field is gone: nothing of it is sent.',
  text: '',
}
const ICONS = { folder: mdiFolderOutline, field: mdiTableColumn, text: mdiTextBoxOutline, file: mdiTextBoxOutline }
const field = ref<HTMLInputElement>()

const file = computed(() => (props.entry.kind === 'file' ? library.known.get(props.entry.file) : undefined))
const path = computed(() => entryPath(props.entry, props.now.own))
const what = computed(() => {
  if (props.now.gone) return GONE[props.entry.kind]
  if (props.entry.kind === 'folder')
    return `${counted(props.now.files, 'file')}: always what the folder “${props.now.own}” holds${props.entry.name === '' ? ', without its name' : ''}`
  if (props.entry.kind === 'field') {
    const catalogue = catalogues.byId.get(props.entry.catalogue)?.name ?? 'the catalogue'
    return `${counted(props.now.files, 'file')}: always what ${catalogue} that visitors see hold as “${props.now.own}”`
  }
  if (props.entry.kind === 'text') return 'written for this bundle'
  // Only where two things would have the same path.
  return props.now.path !== path.value ? `sent as ${props.now.path}` : (file.value?.title ?? '')
})

const typing = ref(false)
/** what stands in the field: while it is typed into, nothing else may write there */
const text = ref(path.value)
watch(path, () => {
  if (!typing.value) text.value = path.value
})
function rename() {
  const asked = text.value
  text.value = path.value
  if (asked.trim() !== path.value) emit('change', withPath(props.entry, asked, props.now.own))
}
function onEscape() {
  text.value = path.value
  void nextTick(() => field.value?.blur())
}
</script>

<template>
  <div class="entry" :class="{ gone: now.gone }">
    <TypeTag v-if="file" :tag="file.tag" :family="file.family" />
    <span v-else class="sign"><VIcon :icon="ICONS[entry.kind]" size="18" /></span>
    <span class="words">
      <VTextField
        ref="field"
        v-model="text"
        class="path small"
        maxlength="400"
        spellcheck="false"
        :aria-label="`Path of ${now.own || 'a file that is gone'} in the zip`"
        :placeholder="entry.kind === 'folder' || entry.kind === 'field' ? 'at the top of the zip' : now.own"
        :title="path"
        @update:focused="typing = $event"
        @blur="rename"
        @keydown.enter="field!.blur()"
        @keydown.esc.stop="onEscape"
      />
      <span class="what"
        ><NuxtLink v-if="file && !now.gone && what === file.title" :to="`/desk/files/${file.id}`" draggable="false">{{ what }}</NuxtLink
        ><template v-else>{{ what }}</template></span
      >
    </span>
    <span class="size mono" :title="formatExactSize(now.size)">{{ now.gone ? '' : formatSize(now.size) }}</span>
    <VBtn v-if="entry.kind === 'text'" :aria-label="`Edit ${now.own}`" @click="emit('edit')">Edit</VBtn>
    <VBtn color="soft" :aria-label="`Take ${path || now.own || 'it'} out`" title="Take it out" @click="emit('remove')">
      <VIcon :icon="mdiClose" size="15" />
    </VBtn>
  </div>
</template>

<style scoped>
.entry {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 46px;
  padding: 0 6px 0 10px;
  background: #fff;
  border-bottom: 1px solid #e4eae8;
}
.entry:hover,
.entry:focus-within {
  background: #f1f6f5;
}
.sign {
  width: 40px;
  text-align: center;
  color: var(--soft);
  flex: none;
}
.words {
  flex: 1;
  min-width: 0;
  display: grid;
}
.path {
  margin-left: -6px;
}
.path :deep(.v-field) {
  background: transparent;
}
.path :deep(.v-field:not(.v-field--focused)) {
  box-shadow: none;
}
.entry:hover .path :deep(.v-field) {
  background: #fff;
}
.entry:hover .path :deep(.v-field:not(.v-field--focused)) {
  box-shadow: inset 0 0 0 1px #95a39f;
}
.what {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  color: var(--soft);
  font-size: 12.5px;
}
.what a {
  color: inherit;
  text-decoration: none;
}
.what a:hover {
  text-decoration: underline;
}
.size {
  color: var(--soft);
  white-space: nowrap;
}
.gone .path :deep(input) {
  text-decoration: line-through;
}
.gone .what {
  color: #9a4420;
}
</style>
