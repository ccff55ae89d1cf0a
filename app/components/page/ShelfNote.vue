<script setup lang="ts">
import { mdiArrowDown, mdiArrowUp, mdiClose } from '@mdi/js'
import { MOST_ON_SHELF, type ShelfAttrs, type ShelfSource } from '~~/core/page/schema'
import type { FileItem } from '~~/core/files/fileItem'
import { ACTION_CHOICES, BELOW_CHOICES, LAYOUT_CHOICES, ORDER_CHOICES } from '~/editor/words'

/** The settings of the selected shelf, in the margin. */
const props = defineProps<{ attrs: ShelfAttrs }>()
const emit = defineEmits<{ change: [attrs: Partial<ShelfAttrs>]; duplicate: []; move: [direction: -1 | 1]; remove: []; leave: [] }>()

const library = useLibrary()
const folders = useFolders()
const page = usePage()
const root = ref<HTMLElement>()
const choosing = ref<'folder' | 'file'>()

const source = computed(() => props.attrs.source)
const { files } = useShelf(source)
const ids = computed(() => (source.value?.kind === 'files' ? source.value.ids : []))
const count = computed(() => page.downloads[props.attrs.placement] ?? 0)

const list = (of: ShelfSource) => emit('change', { source: of })

function listFolder(id: string) {
  choosing.value = undefined
  list(shelfOfFolder(id))
}

function add(file: FileItem) {
  choosing.value = undefined
  if (!ids.value.includes(file.id)) list({ kind: 'files', ids: [...ids.value, file.id] })
}

function moveFile(index: number, direction: -1 | 1) {
  const moved = [...ids.value]
  const [id] = moved.splice(index, 1)
  moved.splice(index + direction, 0, id!)
  list({ kind: 'files', ids: moved })
}

defineExpose({ focus: () => root.value?.querySelector<HTMLElement>('input, button')?.focus() })
</script>

<template>
  <section
    ref="root"
    class="note"
    aria-label="Settings of this shelf"
    @keydown.esc.stop="choosing ? (choosing = undefined) : emit('leave')"
  >
    <div class="source">
      <p v-if="source?.kind === 'folder'" class="lists">
        Lists what lies in <b>{{ folders.nameOf(source.id) }}</b>, always.
      </p>
      <p v-else-if="ids.length" class="lists">Lists {{ counted(ids.length, 'chosen file') }}.</p>
      <p v-else class="lists missing">Lists nothing yet.</p>
      <ol v-if="ids.length" class="chosen">
        <li v-for="(id, index) in ids" :key="id">
          <span class="title" :class="{ gone: !library.known.get(id) || library.known.get(id)!.deleted }">{{
            library.known.get(id)?.title ?? 'A file that is gone'
          }}</span>
          <VBtn color="soft" :disabled="!index" :aria-label="`Move ${library.known.get(id)?.title} up`" @click="moveFile(index, -1)">
            <VIcon :icon="mdiArrowUp" size="15" />
          </VBtn>
          <VBtn
            color="soft"
            :disabled="index === ids.length - 1"
            :aria-label="`Move ${library.known.get(id)?.title} down`"
            @click="moveFile(index, 1)"
          >
            <VIcon :icon="mdiArrowDown" size="15" />
          </VBtn>
          <VBtn
            color="soft"
            :aria-label="`Take ${library.known.get(id)?.title ?? 'it'} off the shelf`"
            @click="list({ kind: 'files', ids: ids.filter(other => other !== id) })"
          >
            <VIcon :icon="mdiClose" size="15" />
          </VBtn>
        </li>
      </ol>
      <div class="ways">
        <VBtn @click="choosing = 'folder'">
          {{ source?.kind === 'folder' ? 'Other folder…' : 'All of a folder…' }}
        </VBtn>
        <VBtn v-if="ids.length < MOST_ON_SHELF" @click="choosing = 'file'">
          {{ ids.length ? 'One more file…' : 'Chosen files…' }}
        </VBtn>
        <VBtn
          v-if="source?.kind === 'folder' && files.length"
          title="Keeps the files it lists now; what comes into the folder later is not shown"
          @click="list({ kind: 'files', ids: files.map(file => file.id) })"
        >
          Only these {{ files.length }}
        </VBtn>
      </div>
      <FileFinder
        v-if="choosing === 'file'"
        class="pop"
        label="Find a file for this shelf"
        :except="ids"
        @choose="add"
        @close="choosing = undefined"
      />
      <FolderPickDialog
        v-if="choosing === 'folder'"
        question="Which folder should it list?"
        hint="What is put into the folder later is on the page at once; what is taken out is not."
        act="List it"
        @choose="listFolder"
        @close="choosing = undefined"
      />
    </div>

    <ChoiceField
      legend="Shown as"
      :choices="LAYOUT_CHOICES"
      :value="attrs.layout ?? 'lines'"
      @choose="emit('change', { layout: $event })"
    />
    <p v-if="attrs.layout === 'pictures'" class="hint">Each is seen large when it is pressed, and had from there.</p>
    <ChoiceField
      v-if="source?.kind === 'folder'"
      legend="Order"
      :choices="ORDER_CHOICES"
      :value="source.order"
      @choose="list({ ...source, order: $event })"
    />
    <ChoiceField
      v-if="source?.kind === 'folder' && (source.below !== 'no' || folders.tree.childrenOf(source.id).length)"
      legend="Folders in it"
      :choices="BELOW_CHOICES"
      :value="source.below"
      @choose="list({ ...source, below: $event })"
    />
    <VCheckbox
      label="With a field that looks through it"
      :model-value="!!attrs.search"
      @update:model-value="emit('change', { search: !attrs.search })"
    />
    <div class="field">
      <ChoiceField
        legend="A click on a file"
        :choices="ACTION_CHOICES"
        :value="attrs.action"
        @choose="emit('change', { action: $event })"
      />
      <p class="hint">Types that browsers cannot show safely are saved, whatever you choose.</p>
    </div>

    <VCheckbox
      label="Visitors may take several as one zip"
      :model-value="attrs.pick"
      @update:model-value="emit('change', { pick: $event })"
    />
    <VTextField
      v-if="attrs.pick"
      label="Name of the zip"
      maxlength="200"
      :model-value="attrs.zipName"
      :placeholder="source?.kind === 'folder' ? folders.nameOf(source.id) : page.current?.title"
      @update:model-value="emit('change', { zipName: $event })"
    />

    <p class="tally">{{ count ? `${counted(count, 'download')} from here` : 'No downloads from here yet' }}</p>
    <BlockActs @duplicate="emit('duplicate')" @move="emit('move', $event)" @remove="emit('remove')" />
  </section>
</template>

<style scoped>
.note {
  padding: 12px;
  background: #f5f8f7;
  border: 1px solid var(--line);
  border-left: 3px solid var(--water);
  border-radius: 0 4px 4px 0;
  display: grid;
  gap: 10px;
}
.source {
  position: relative;
  display: grid;
  gap: 6px;
}
.lists {
  line-height: 1.4;
  overflow-wrap: anywhere;
}
.missing {
  color: #9a4420;
  font-weight: 600;
}
.chosen {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 180px;
  overflow: auto;
  background: #fff;
  border: 1px solid var(--line);
  border-radius: 4px;
}
.chosen li {
  display: flex;
  align-items: center;
  padding-left: 8px;
  min-height: 30px;
}
.chosen li + li {
  border-top: 1px solid #e4eae8;
}
.chosen .v-btn {
  padding: 0 4px;
}
.chosen .v-btn:disabled {
  opacity: 0.35;
}
.title {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.gone {
  text-decoration: line-through;
  color: #9a4420;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  margin-left: -8px;
}
.pop {
  position: absolute;
  top: 100%;
  right: 0;
  z-index: 20;
  margin-top: 4px;
}
.tally {
  color: var(--soft);
  font-size: 12.5px;
}
</style>
