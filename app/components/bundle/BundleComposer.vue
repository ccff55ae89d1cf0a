<script setup lang="ts">
import type { BundleEntry } from '~~/core/bundle/bundleEntry'
import { formatExactSize, formatSize } from '~~/core/files/size'
import { newId } from '~~/core/id'
import { bringsFiles, type DropTarget } from '~/composables/carried'
import type { LocalFile } from '~/composables/localFiles'

/** What goes into a bundle: files, folders and texts, in their order, and what visitors get of them. */
const props = defineProps<{ id: string }>()
const { bundle, failure, compose, add, setGated } = useBundle(() => props.id)
const library = useLibrary()
const uploads = useUploads()
const session = useSession()
const listing = useListing()

const GATED = [
  { value: 'behind', title: 'The bundle stands behind all their gates' },
  { value: 'without', title: 'The bundle is without them' },
] as const

const finding = ref(false)
const choosingFolder = ref(false)
const writing = ref<{ id: string; name: string; body: string }>()
/** files are held over it */
const over = ref(false)
/** the row an entry would go in front of */
const before = ref<number>()
const list = ref<HTMLElement>()

watch(
  () => bundle.value?.entries,
  entries => void library.meet((entries ?? []).flatMap(entry => (entry.kind === 'file' ? [entry.file] : []))),
)

const catalogues = useCatalogues()
onMounted(() => void catalogues.load().catch(() => undefined))
/** Fields of catalogues that hold files, as what can be put in. */
const fields = computed(() =>
  catalogues.items.flatMap(({ id, name, fields: all }) =>
    all
      .filter(({ kind }) => kind === 'file' || kind === 'files')
      .map(field => ({ catalogue: id, field: field.id, title: `${field.name} of ${name.toLowerCase()}` })),
  ),
)
/** On its own it needs no folder of its name. */
const addField = ({ catalogue, field }: { catalogue: string; field: string }) =>
  compose([...entries.value, { id: newId(), kind: 'field', within: '', catalogue, field, name: entries.value.length ? null : '' }])

const entries = computed(() => bundle.value?.entries ?? [])
const named = computed(() => entries.value.map(entry => bundle.value!.now[entry.id]!))

function replace(index: number, entry: BundleEntry) {
  return compose(entries.value.with(index, entry))
}
async function remove(index: number) {
  await compose(
    entries.value.filter((_, other) => other !== index),
    `“${named.value[index]!.own}” is no longer in the bundle. It stays in the library.`,
  )
  focusRow(Math.min(index, entries.value.length - 1))
}
async function move(from: number, to: number) {
  if (to < 0 || to >= entries.value.length || from === to) return
  const others = entries.value.filter((_, index) => index !== from)
  await compose(others.toSpliced(to, 0, entries.value[from]!))
  focusRow(to)
}
function focusRow(index: number) {
  void nextTick(() => list.value?.querySelectorAll<HTMLElement>('.path')[index]?.focus())
}

const STARTS: Record<'READ ME.txt' | 'LICENCE.txt', () => string> = {
  'READ ME.txt': () =>
    `${bundle.value!.file.title}\n\nFrom ${session.site.name || 'us'}${session.site.address ? `, ${session.site.address}` : ''}\n\nIn here:\n${bundle
      .value!.members.slice(0, 60)
      .map(member => `- ${member.path}`)
      .join('\n')}\n`,
  'LICENCE.txt': () =>
    `© ${new Date().getFullYear()} ${session.site.name || '(your name)'}\n\nYou may print and copy these files for your own use and for teaching.\nPlease ask us before you sell them or put them on another site.\n`,
}
function write(name: keyof typeof STARTS) {
  const there = entries.value.find(entry => entry.kind === 'text' && entry.name === name)
  writing.value = there?.kind === 'text' ? { ...there } : { id: newId(), name, body: STARTS[name]() }
}
async function saveText() {
  const { id, name, body } = writing.value!
  const index = entries.value.findIndex(entry => entry.id === id)
  writing.value = undefined
  const known = entries.value[index]
  if (known?.kind === 'text') await replace(index, { ...known, body })
  else await compose([{ id, kind: 'text', within: '', name, body }, ...entries.value])
}

async function fromComputer() {
  finding.value = false
  take((await chooseFiles({ multiple: true })).map(file => ({ file, path: file.name })))
}
/** Files of the computer go into the open folder of the library, then into the bundle. */
function take(files: LocalFile[]) {
  void uploads.bring(files, listing.folder, item => add({ files: [item.id], folders: [] }))
}

const takesFiles: DropTarget = {
  takes: bringsFiles,
  over: () => (over.value = true),
  out: () => (over.value = false),
  drop: async ({ things, files }) => (things ? add(things) : take((await files) ?? [])),
}
const takesRow = (index: number): DropTarget => ({
  takes: ({ entry }) => entry !== undefined,
  moves: () => true,
  over: (_carried, { side }) => (before.value = side === 'before' ? index : index + 1),
  out: () => (before.value = undefined),
  drop({ entry: from }, { side }) {
    const to = side === 'before' ? index : index + 1
    return move(from!, to > from! ? to - 1 : to)
  },
})
function onKey(event: KeyboardEvent, index: number) {
  const step = event.altKey && { ArrowUp: -1, ArrowDown: 1 }[event.key]
  if (!step) return
  event.preventDefault()
  void move(index, index + step)
}
</script>

<template>
  <section v-drop="takesFiles" class="composer" aria-label="What is in the bundle" :class="{ over }">
    <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
    <template v-else-if="bundle">
      <p class="sum" aria-live="polite">
        <b
          >{{ counted(bundle.total, 'file') }},
          <span :title="formatExactSize(bundle.file.size)">{{ formatSize(bundle.file.size) }}</span></b
        >
        as a zip, put together anew for everyone who downloads it.
      </p>
      <p v-if="bundle.closed" class="hint">
        {{ counted(bundle.closed, 'file in it is', 'files in it are') }} for the desk alone, and left out of the zip.
      </p>
      <VSelect
        v-if="bundle.behind || bundle.gated === 'without'"
        :label="`${counted(bundle.behind, 'file in it stands', 'files in it stand')} behind gates`"
        :items="[...GATED]"
        :model-value="bundle.gated"
        @update:model-value="setGated"
      />
      <ol v-if="entries.length" ref="list" class="entries">
        <li
          v-for="(entry, index) in entries"
          :key="entry.id"
          v-drag="() => ({ carried: { entry: index } })"
          v-drop="takesRow(index)"
          :class="{ before: before === index, behind: before === index + 1 && index === entries.length - 1 }"
          @keydown="onKey($event, index)"
        >
          <BundleEntryRow
            :entry="entry"
            :now="named[index]!"
            @change="replace(index, $event)"
            @remove="remove(index)"
            @edit="entry.kind === 'text' && (writing = { ...entry })"
          />
        </li>
      </ol>
      <p v-else class="empty">
        Nothing is in it yet. Drop files and folders here, from the library or from your computer, or add them below.
      </p>
      <div class="acts">
        <span class="with-finder">
          <VBtn variant="outlined" :aria-expanded="finding" @click="finding = !finding">Add files…</VBtn>
          <FileFinder
            v-if="finding"
            class="finder-pop"
            label="Find a file for the bundle"
            computer
            no-bundles
            @choose="
              $event => {
                finding = false
                add({ files: [$event.id], folders: [] })
              }
            "
            @computer="fromComputer"
            @close="finding = false"
          />
        </span>
        <VBtn variant="outlined" @click="choosingFolder = true">Add a folder, always…</VBtn>
        <VMenu v-if="fields.length">
          <template #activator="{ props: activator }">
            <VBtn v-bind="activator" variant="outlined">Add files of a catalogue, always…</VBtn>
          </template>
          <MenuList>
            <MenuItem v-for="field in fields" :key="`${field.catalogue} ${field.field}`" :title="field.title" @click="addField(field)" />
          </MenuList>
        </VMenu>
        <VBtn @click="write('READ ME.txt')">Write a read-me</VBtn>
        <VBtn @click="write('LICENCE.txt')">Write a licence</VBtn>
      </div>
      <p v-if="entries.length" class="hint">
        Click a path to rename it in the zip; write <code>/</code> for folders, as in <code>Charts/raku.pdf</code>. Drag rows, or press
        <kbd>Alt</kbd> <kbd>↑</kbd> <kbd>↓</kbd>, to order them.
      </p>
      <FoldSection v-if="bundle.total" heading="All that visitors find in it">
        <ul class="members">
          <li v-for="member in bundle.members" :key="member.path">
            <code>{{ member.path }}</code><span class="mono">{{ formatSize(member.size) }}</span>
          </li>
        </ul>
        <p v-if="bundle.total > bundle.members.length" class="hint">
          And {{ (bundle.total - bundle.members.length).toLocaleString() }} more.
        </p>
      </FoldSection>
      <FolderPickDialog
        v-if="choosingFolder"
        question="Which folder, always?"
        hint="What is put into it later is in the bundle at once; what is taken out is not."
        act="Put it in"
        @choose="
          $event => {
            choosingFolder = false
            add({ files: [], folders: [$event] })
          }
        "
        @close="choosingFolder = false"
      />
      <BundleTextDialog v-if="writing" v-model="writing.body" :name="writing.name" @save="saveText" @close="writing = undefined" />
    </template>
  </section>
</template>

<style scoped>
.composer {
  display: grid;
  gap: 10px;
  align-content: start;
  min-width: 0;
  min-height: 200px;
  border-radius: 4px;
}
.composer.over {
  outline: 2px dashed var(--water);
  outline-offset: 4px;
  background: #e1efed;
}
.entries {
  list-style: none;
  margin: 0;
  padding: 0;
  border: 1px solid #a9b7b3;
  border-radius: 4px;
  overflow: hidden;
}
.entries li {
  cursor: grab;
}
.entries li:last-child :deep(.entry) {
  border-bottom: 0;
}
.before {
  box-shadow: 0 -2px 0 var(--water);
  position: relative;
  z-index: 1;
}
.behind {
  box-shadow: 0 2px 0 var(--water);
  position: relative;
  z-index: 1;
}
.empty {
  padding: 30px 20px;
  text-align: center;
  color: var(--soft);
  border: 2px dashed #a9b7b3;
  border-radius: 4px;
}
.with-finder {
  position: relative;
}
.finder-pop {
  position: absolute;
  z-index: 5;
  left: 0;
  top: 32px;
}
.members {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
  max-height: 340px;
  overflow: auto;
  border: 1px solid var(--line);
  border-radius: 4px;
}
.members li {
  display: flex;
  gap: 12px;
  padding: 3px 10px;
  border-bottom: 1px solid #e4eae8;
}
.members code {
  flex: 1;
  min-width: 0;
  overflow-wrap: anywhere;
}
.members span {
  color: var(--soft);
  white-space: nowrap;
}
.failure {
  padding: 14px;
  background: #f6e3d8;
  border-radius: 4px;
}
</style>
