<script setup lang="ts">
import { mdiFileTreeOutline, mdiFormatListBulleted, mdiMenuDown, mdiViewGridOutline } from '@mdi/js'
import type { Selection } from '~~/core/files/selection'
import { VIEWS, type LibraryView } from '~/stores/listing'
import type LibraryFileList from './LibraryFileList.vue'

const rights = useRights()
const uploads = useUploads()
const boards = useBoards()
const listing = useListing()
const folders = useFolders()
const selection = useSelection()

/** files may be put into the open folder */
const puts = computed(() => rights.mayIn('put', listing.folder))
const list = ref<InstanceType<typeof LibraryFileList>>()
const moving = ref(false)
const describing = ref(false)
const bundling = ref<Selection>()
const session = useSession()
/** files of the bin that are asked about before they go for good */
const forGood = ref<string[] | 'all'>()
const fetching = ref<string>()
const deleting = ref<{ things: Selection; title?: string }>()
/** the folder whose settings are open; "new" for one that is made */
const folderOpen = ref<string>()
const VIEW_WORDS: Record<LibraryView, [words: string, icon: string]> = {
  rows: ['Rows', mdiFormatListBulleted],
  tiles: ['Tiles', mdiViewGridOutline],
  tree: ['Tree', mdiFileTreeOutline],
}

async function choose() {
  await uploads.bring(
    (await chooseFiles({ multiple: true })).map(file => ({ file, path: file.name })),
    listing.folder,
  )
}

async function chooseWhole() {
  await uploads.bring(await chooseFolder(), listing.folder)
}

const { over, target } = useDropOn(false, async ({ files }) => uploads.bring((await files) ?? [], listing.folder))

const isWriting = (target: EventTarget | null) =>
  target instanceof HTMLElement && (target.isContentEditable || /^(?:INPUT|TEXTAREA|SELECT)$/.test(target.tagName))

/** What is pasted outside any field comes into the open folder: files and pictures, or the file at a web address. */
async function onPaste(event: ClipboardEvent) {
  if (isWriting(event.target) || event.defaultPrevented) return
  const files = [...(event.clipboardData?.files ?? [])]
  const text = event.clipboardData?.getData('text/plain').trim() ?? ''
  if (files.length) {
    const day = new Date().toISOString().slice(0, 10)
    // Browsers call every copied picture "image.png".
    const named = files.map(file =>
      /^image\.\w+$/.test(file.name) ? new File([file], file.name.replace('image', `pasted-${day}`), { type: file.type }) : file,
    )
    await uploads.bring(
      named.map(file => ({ file, path: file.name })),
      listing.folder,
    )
  } else if (/^https?:\/\/\S+$/.test(text)) fetching.value = text
  else return
  event.preventDefault()
}
useEventListener(window, 'paste', onPaste)

function removeChosen() {
  const { files, folders: folderIds } = selection.chosen
  const [folder] = folderIds
  const title =
    files.length + folderIds.length > 1 ? undefined : folder ? folders.nameOf(folder) : useLibrary().known.get(files[0] ?? '')?.title
  deleting.value = { things: selection.chosen, title }
}

async function startRemoving() {
  // A single file's title is part of what is said; it may not be known yet.
  if (selection.chosen.files.length === 1) await selection.attempt(() => useLibrary().meet(selection.chosen.files))
  removeChosen()
}

// The bar goes with the selection: whoever pressed a key on it goes on in the list.
watch(
  () => selection.count,
  async count => {
    if (count || !document.activeElement?.closest('.selection-bar')) return
    await nextTick()
    await list.value?.focus()
  },
)

async function makeInside(id: string) {
  listing.open(id)
  folderOpen.value = undefined
  await nextTick()
  folderOpen.value = 'new'
}

function removeFolder(id: string) {
  folderOpen.value = undefined
  deleting.value = { things: { files: [], folders: [id] }, title: folders.nameOf(id) }
}

/** Files in the open folder and below it; or what the filters let through. */
const total = computed(() => {
  const here = list.value?.total
  if (here === undefined || listing.filtered || listing.bin) return here
  return here + folders.tree.childrenOf(listing.folder).reduce((sum, folder) => sum + (folders.filesBelow.get(folder.id) ?? 0), 0)
})
</script>

<template>
  <div v-drop="target" class="library" :class="{ over }">
    <header class="board-head">
      <h2 class="h1">{{ listing.bin ? 'Bin' : 'Library' }}</h2>
      <span class="count">{{ total === undefined ? '' : counted(total, 'file') }}{{ listing.filtered ? ' found' : '' }}</span>
      <VBtn v-if="listing.bin && total && rights.everywhere('delete')" variant="outlined" color="clay" @click="forGood = 'all'"
        >Empty the bin…</VBtn
      >
      <span v-if="!listing.bin && puts" class="put-in">
        <VBtn variant="outlined" @click="choose">Put files in…</VBtn>
        <VMenu location="bottom end">
          <template #activator="{ props: activator }"
            ><VBtn variant="outlined" class="more" v-bind="activator" aria-label="More ways in" title="More ways in">
              <VIcon :icon="mdiMenuDown" size="18" /></VBtn
          ></template>
          <MenuList>
            <MenuItem title="New folder" @click="folderOpen = 'new'" />
            <MenuItem title="New bundle" @click="bundling = { files: [], folders: [] }" />
            <MenuItem title="A whole folder…" @click="chooseWhole" />
            <MenuItem title="From a web address…" @click="fetching = ''" />
            <VListSubheader>Or drop or paste here.</VListSubheader>
          </MenuList>
        </VMenu>
      </span>
      <VBtnToggle v-model="listing.view" role="radiogroup" aria-label="How files are shown">
        <VBtn
          v-for="view in VIEWS"
          :key="view"
          :value="view"
          role="radio"
          :aria-checked="listing.view === view"
          :aria-label="VIEW_WORDS[view][0]"
          :title="VIEW_WORDS[view][0]"
        >
          <VIcon :icon="VIEW_WORDS[view][1]" size="17" />
        </VBtn>
      </VBtnToggle>
      <VBtn class="fold" title="Fold the library away" aria-label="Fold the library away" @click="boards.folded = 'library'"> ‹ </VBtn>
    </header>
    <PathStrips @settings="folderOpen = listing.folder ?? undefined" />
    <FilterBar />
    <div v-if="listing.bin && folders.binned.length" class="binned">
      <div v-for="folder in folders.binned" :key="folder.id" class="binned-folder">
        <b>{{ folder.name }}</b><span>folder with {{ counted(folder.files, 'file') }}, deleted {{ shortDate(folder.deleted) }}</span>
        <VBtn
          v-if="rights.everywhere('delete')"
          :aria-label="`Restore ${folder.name}`"
          @click="selection.attempt(() => selection.restore({ files: [], folders: [folder.id] }))"
        >
          Restore
        </VBtn>
      </div>
    </div>
    <LibraryFileList ref="list" @folder-settings="folderOpen = $event" @move="moving = true" @remove="startRemoving">
      <template #empty>
        <div v-if="listing.filtered" class="empty">
          <p>No file {{ listing.folder && !listing.onlyHere ? 'here or below ' : '' }}fits “{{ listing.filters.q || 'all of that' }}”.</p>
          <VBtn variant="outlined" @click="listing.clear()">Show all files</VBtn>
        </div>
        <p v-else-if="listing.bin" class="empty">The bin is empty. What is deleted stays here for {{ counted(session.binDays, 'day') }}.</p>
        <div v-else-if="list?.empty" class="empty">
          <template v-if="puts">
            <p class="big">Drop files here.</p>
            <p>PDFs, documents, pictures, zips, whole folders: each file gets an address that never changes.</p>
            <VBtn variant="flat" @click="choose">Choose files…</VBtn>
          </template>
          <p v-else>No file is here that you may see.</p>
        </div>
      </template>
    </LibraryFileList>
    <ReadingLine />
    <SelectionBar
      @bundle="bundling = selection.chosen"
      @move="moving = true"
      @describe="describing = true"
      @remove="startRemoving"
      @for-good="forGood = selection.chosen.files"
    />
    <div v-if="over" class="veil">
      <span
        >Drop to put into {{ listing.openFolder ? `“${listing.openFolder.name}”` : 'the library' }}; on a file, to be its next edition</span
      >
    </div>
    <BundleDialog v-if="bundling" :things="bundling" @close="bundling = undefined" />
    <MoveDialog
      v-if="moving"
      @close="
        () => {
          moving = false
          list?.focus()
        }
      "
    />
    <DescribeDialog
      v-if="describing"
      @close="
        () => {
          describing = false
          list?.focus()
        }
      "
    />
    <FetchDialog v-if="fetching !== undefined" :address="fetching" @close="fetching = undefined" />
    <FolderDialog
      v-if="folderOpen"
      :key="folderOpen"
      :folder="folderOpen === 'new' ? undefined : folders.tree.get(folderOpen)"
      @close="folderOpen = undefined"
      @remove="removeFolder(folderOpen)"
      @inside="makeInside(folderOpen)"
    />
    <DeleteDialog
      v-if="deleting"
      v-bind="deleting"
      @close="deleting = undefined"
      @done="
        () => {
          deleting = undefined
          list?.focus()
        }
      "
    />
    <ForGoodDialog
      v-if="forGood"
      :files="forGood === 'all' ? undefined : forGood"
      @close="forGood = undefined"
      @done="
        () => {
          forGood = undefined
          selection.clear()
          list?.focus()
        }
      "
    />
    <ClashDialog />
  </div>
</template>

<style scoped>
.library {
  position: relative;
  display: flex;
  flex-direction: column;
  min-height: 0;
  height: 100%;
  container-type: inline-size;
  background: var(--grey);
  user-select: none;
}
.count {
  color: var(--soft);
  margin-right: auto;
  white-space: nowrap;
}
.put-in {
  display: flex;
}
.put-in > :first-child {
  border-radius: 3px 0 0 3px;
}
.more {
  padding: 0 3px;
  border-left: 0 !important;
  border-radius: 0 3px 3px 0;
}
.empty {
  padding: 44px 24px;
  text-align: center;
  color: var(--soft);
  display: grid;
  gap: 10px;
  justify-items: center;
}
.empty .big {
  font-size: 20px;
  color: var(--ink);
}
.binned {
  max-height: 30%;
  overflow: auto;
}
.binned-folder {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 32px;
  padding: 0 10px 0 28px;
  background: #eaf0ee;
  border-bottom: 1px solid #cfdad7;
}
.binned-folder span {
  flex: 1;
  color: var(--soft);
  font-size: 12.5px;
}
.veil {
  position: absolute;
  inset: 6px;
  z-index: 5;
  display: grid;
  align-items: end;
  padding: 12px;
  border: 2px dashed var(--water);
  pointer-events: none;
}
.veil span {
  padding: 8px 12px;
  font-weight: 600;
  text-align: center;
  color: #fff;
  background: var(--water);
  border-radius: 4px;
}
@media (max-width: 799px) {
  .fold {
    display: none;
  }
}
@container (max-width: 420px) {
  .board-head {
    gap: 6px;
    padding-left: 10px;
  }
  .count {
    display: none;
  }
  .h1 {
    margin-right: auto !important;
  }
}
</style>
