<script setup lang="ts">
import { FAMILIES } from '~~/core/files/mediaType'
import type { FileItem } from '~~/core/files/fileItem'
import { MOST_ON_SHELF, type AskedSource, type FoundSource, type ShelfSource } from '~~/core/shelf/shelfSource'
import { BELOW_CHOICES, FOUND_ORDER_CHOICES, ORDER_CHOICES } from '~/editor/words'
import { FAMILY_WORDS } from '~/library/filterWords'

/** What a shelf lists, in its margin. */
const props = defineProps<{ source: ShelfSource | null; files: FileItem[] }>()
const emit = defineEmits<{ list: [source: ShelfSource] }>()

const folders = useFolders()
const choosing = ref<'folder' | 'file' | 'pin'>()
const ids = computed(() => (props.source?.kind === 'files' ? props.source.ids : []))
const asked = computed(() => (props.source && props.source.kind !== 'files' ? props.source : undefined))
const found = computed(() => (props.source?.kind === 'found' ? props.source : undefined))
const narrowed = computed(() => !!asked.value && (!!asked.value.most || !!asked.value.within || !!asked.value.pinned?.length))

const change = (changed: Partial<AskedSource>) => emit('list', { ...asked.value, ...changed } as AskedSource)
const ask = (changed: Partial<FoundSource>) => emit('list', { ...found.value, ...changed } as FoundSource)

/** What is alike, wherever it lies: beginning with the folder that was listed. */
function listFound() {
  const start = props.source?.kind === 'folder' ? [props.source.id] : []
  emit('list', { kind: 'found', folders: start, q: '', types: [], tags: [], order: 'title', below: 'no' })
}

function pickFolder(id: string) {
  choosing.value = undefined
  if (found.value) ask({ folders: [...new Set([...found.value.folders, id])] })
  else emit('list', shelfOfFolder(id))
}

function pickFile(file: FileItem) {
  const way = choosing.value
  choosing.value = undefined
  if (way === 'pin') change({ pinned: [...new Set([...(asked.value?.pinned ?? []), file.id])] })
  else if (!ids.value.includes(file.id)) emit('list', { kind: 'files', ids: [...ids.value, file.id] })
}

const pin = (pinned: string[]) => change({ pinned: pinned.length ? pinned : undefined })
const setMost = (most: number | null) => change({ most: most || null })
const setDays = (days: number | null) => change({ within: days ? { time: asked.value?.within?.time ?? 'changed', days } : null })
const WAY_WORDS = { changed: 'changed', added: 'added' }
const TIMES = (['changed', 'added'] as const).map(value => ({ value, title: WAY_WORDS[value] }))

defineExpose({ choosing, stop: () => (choosing.value = undefined) })
</script>

<template>
  <div class="source">
    <p v-if="source?.kind === 'folder'" class="lists">
      Lists what lies in <b>{{ folders.nameOf(source.id) }}</b>, always.
    </p>
    <p v-else-if="ids.length" class="lists">Lists {{ counted(ids.length, 'chosen file') }}.</p>
    <p v-else-if="found" class="lists">Lists all files that are like this, always.</p>
    <p v-else class="lists missing">Lists nothing yet.</p>
    <ShelfFileList v-if="ids.length" :ids="ids" off="off the shelf" @choose="emit('list', { kind: 'files', ids: $event })" />
    <template v-if="found">
      <FolderList v-if="found.folders.length" :ids="found.folders" off="List no longer what lies in" @choose="ask({ folders: $event })" />
      <TagField :model-value="found.tags" label="With the tags" @update:model-value="ask({ tags: $event })" />
      <VSelect
        label="Of the kinds"
        multiple
        :model-value="found.types"
        :items="FAMILIES.map(value => ({ value, title: FAMILY_WORDS[value] }))"
        placeholder="any"
        @update:model-value="ask({ types: $event })"
      />
      <VTextField label="With the words" maxlength="200" :model-value="found.q" @update:model-value="ask({ q: $event ?? '' })" />
    </template>
    <div class="ways">
      <VBtn @click="choosing = 'folder'">
        {{ found ? (found.folders.length ? 'One more folder…' : 'Only in a folder…') : asked ? 'Other folder…' : 'All of a folder…' }}
      </VBtn>
      <VBtn v-if="!found && ids.length < MOST_ON_SHELF" @click="choosing = 'file'">
        {{ ids.length ? 'One more file…' : 'Chosen files…' }}
      </VBtn>
      <VBtn v-if="!found" title="By tags, kinds or words, in one folder, several or all of the library" @click="listFound">
        What is alike…
      </VBtn>
      <VBtn
        v-if="asked && files.length && files.length <= MOST_ON_SHELF"
        title="Keeps the files it lists now; what comes later is not shown"
        @click="emit('list', { kind: 'files', ids: files.map(file => file.id) })"
      >
        Only these {{ files.length }}
      </VBtn>
    </div>
    <FileFinder
      v-if="choosing === 'file' || choosing === 'pin'"
      class="pop"
      :label="choosing === 'pin' ? 'Find a file that stands first' : 'Find a file for this shelf'"
      :except="choosing === 'pin' ? (asked?.pinned ?? []) : ids"
      @choose="pickFile"
      @close="choosing = undefined"
    />
    <FolderPickDialog
      v-if="choosing === 'folder'"
      question="Which folder should it list?"
      :hint="
        found
          ? 'With the folders below it, as far as files in them are like what you say.'
          : 'What is put into the folder later is on the page at once; what is taken out is not.'
      "
      act="List it"
      @choose="pickFolder"
      @close="choosing = undefined"
    />
    <template v-if="asked">
      <ChoiceField
        legend="Order"
        :choices="asked.kind === 'folder' ? ORDER_CHOICES : FOUND_ORDER_CHOICES"
        :value="asked.order"
        @choose="change({ order: $event as 'title' })"
      />
      <ChoiceField
        v-if="asked.kind === 'found' || asked.below !== 'no' || folders.tree.childrenOf(asked.id).length"
        :legend="asked.kind === 'found' ? 'By folders' : 'Folders in it'"
        :choices="asked.kind === 'found' ? [['no', 'Not at all'], ...BELOW_CHOICES.slice(1)] : BELOW_CHOICES"
        :value="asked.below"
        @choose="change({ below: $event as 'no' })"
      />
      <FieldGroup heading="Which of them" :names="[]">
        <div class="more">
          <p v-if="asked.pinned?.length" class="lists">These stand first:</p>
          <ShelfFileList v-if="asked.pinned?.length" :ids="asked.pinned" off="from its first place" @choose="pin" />
          <VBtn class="pin" @click="choosing = 'pin'">{{ asked.pinned?.length ? 'One more first…' : 'Put a file first…' }}</VBtn>
          <VNumberInput
            label="Only so many"
            :min="1"
            :max="MOST_ON_SHELF"
            clearable
            placeholder="all"
            :model-value="asked.most ?? null"
            @update:model-value="setMost"
          />
          <VNumberInput
            label="Of the last days"
            :min="1"
            :max="3660"
            clearable
            placeholder="whenever"
            :model-value="asked.within?.days ?? null"
            @update:model-value="setDays"
          />
          <VSelect
            v-if="asked.within"
            label="In those days"
            :model-value="asked.within.time"
            :items="TIMES"
            @update:model-value="change({ within: { ...asked.within, time: $event } })"
          />
          <VBtn v-if="narrowed" class="pin" @click="change({ pinned: undefined, most: null, within: null })">All of them again</VBtn>
        </div>
      </FieldGroup>
    </template>
  </div>
</template>

<style scoped>
.source {
  position: relative;
  display: grid;
  gap: 8px;
}
.lists {
  line-height: 1.4;
  overflow-wrap: anywhere;
}
.missing {
  color: #9a4420;
  font-weight: 600;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  margin-left: -8px;
}
.more {
  display: grid;
  gap: 8px;
}
.pin {
  justify-self: start;
  margin-left: -8px;
}
.pop {
  position: absolute;
  top: 100%;
  right: 0;
  z-index: 20;
  margin-top: 4px;
}
</style>
