<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import type { FileItem } from '~~/core/files/fileItem'
import { PICTURE_WIDTHS, pictureHref } from '~~/core/page/href'
import { targetFacts } from '~~/core/page/placeholders'
import type { SiteIcon } from '~~/core/shelf/icons'

/** The icons that stand for files on shelves: by type, folder, tag, or for one file. */
const looks = useShelfLooks()
const library = useLibrary()
const folders = useFolders()
const { problem, attempt } = useAttempt()

const KINDS = [
  { value: 'type', title: 'A type' },
  { value: 'folder', title: 'A folder' },
  { value: 'tag', title: 'A tag' },
  { value: 'file', title: 'One file' },
] as const
const TYPES = ['PDF', 'DOCX', 'XLSX', 'PPTX', 'CSV', 'TXT', 'ZIP', 'JPG', 'PNG', 'SVG', 'MP3', 'MP4']

const adding = ref(false)
const choosing = ref<'folder' | 'file' | 'picture'>()
const kind = ref<SiteIcon['of']['kind']>('type')
const value = ref('')
const icon = ref<SiteIcon['icon']>()

const nameOf = ({ kind: of, value: id }: SiteIcon['of']) =>
  of === 'folder'
    ? `folder ${folders.nameOf(id)}`
    : of === 'file'
      ? (library.known.get(id)?.title ?? 'a file that is gone')
      : of === 'tag'
        ? `tag ${id}`
        : id
const pictureOf = (shown: SiteIcon['icon']) => {
  const file = shown.kind === 'picture' ? library.known.get(shown.file) : undefined
  return file && !file.deleted ? pictureHref(targetFacts(file), PICTURE_WIDTHS[0]) : undefined
}
const pathOf = (shown: SiteIcon['icon']) => (shown.kind === 'drawn' ? shown.path : '')

watch(kind, () => (value.value = ''))

function begin() {
  adding.value = true
  value.value = ''
  icon.value = undefined
}
const save = () =>
  attempt(async () => {
    await looks.setIcon({ of: { kind: kind.value, value: value.value.trim() }, icon: icon.value! })
    adding.value = false
  })
const remove = (of: SiteIcon['of']) => attempt(() => looks.removeIcon(of))

function pickFile(file: FileItem) {
  if (choosing.value === 'picture') icon.value = { kind: 'picture', file: file.id }
  else value.value = file.id
  choosing.value = undefined
}
function pickFolder(id: string) {
  value.value = id
  choosing.value = undefined
}
onMounted(() =>
  attempt(async () => {
    await looks.load()
    await library.meet(looks.icons.filter(({ of }) => of.kind === 'file').map(({ of }) => of.value))
  }),
)
</script>

<template>
  <section aria-label="Icons of files">
    <h2>Icons of files <span>Shown on shelves that show icons: that of the file, of its folder, of a tag, of its type</span></h2>
    <ul v-if="looks.icons.length" class="list">
      <li v-for="each in looks.icons" :key="`${each.of.kind} ${each.of.value}`">
        <img v-if="pictureOf(each.icon)" :src="pictureOf(each.icon)" alt="" class="sign" />
        <svg v-else class="sign" viewBox="0 0 24 24" aria-hidden="true"><path :d="pathOf(each.icon)" fill="currentColor" /></svg>
        <span class="of">{{ nameOf(each.of) }}</span>
        <VBtn color="soft" :aria-label="`Take the icon of ${nameOf(each.of)} away`" @click="remove(each.of)">
          <VIcon :icon="mdiClose" size="15" />
        </VBtn>
      </li>
    </ul>
    <p v-else class="hint">None yet: files stand there with the short name of their type.</p>
    <VBtn v-if="!adding" variant="outlined" class="begin" @click="begin">Give an icon…</VBtn>
    <VForm v-else class="add" @submit.prevent="save" @keydown.esc.stop="choosing ? (choosing = undefined) : (adding = false)">
      <div class="of-what">
        <VSelect v-model="kind" label="Icon of" :items="KINDS" />
        <VCombobox v-if="kind === 'type'" v-model="value" label="Which type" :items="TYPES" maxlength="20" />
        <VTextField v-else-if="kind === 'tag'" v-model="value" label="Which tag" maxlength="100" />
        <VBtn v-else variant="outlined" @click="choosing = kind === 'folder' ? 'folder' : 'file'">
          {{ value ? nameOf({ kind, value }) : kind === 'folder' ? 'Which folder…' : 'Which file…' }}
        </VBtn>
      </div>
      <div class="pick">
        <IconPick
          :label="`Icon${icon?.kind === 'drawn' ? `: ${icon.name}` : ''}`"
          :chosen="icon?.kind === 'drawn' ? icon.name : undefined"
          @choose="icon = { kind: 'drawn', ...$event }"
        />
        <VBtn title="A picture or drawing of the library, SVG among them" @click="choosing = 'picture'">
          {{ icon?.kind === 'picture' ? `“${library.known.get(icon.file)?.title}”, another…` : 'A picture of the library…' }}
        </VBtn>
      </div>
      <FileFinder
        v-if="choosing === 'file' || choosing === 'picture'"
        class="pop"
        :label="choosing === 'picture' ? 'Find a picture' : 'Find the file'"
        :types="choosing === 'picture' ? ['picture'] : undefined"
        @choose="pickFile"
        @close="choosing = undefined"
      />
      <FolderPickDialog
        v-if="choosing === 'folder'"
        question="Which folder is it the icon of?"
        hint="Of all files in it and below, where nothing nearer has one."
        act="This one"
        @choose="pickFolder"
        @close="choosing = undefined"
      />
      <div class="acts">
        <VBtn type="submit" variant="flat" :disabled="!value?.trim() || !icon">Give it</VBtn>
        <VBtn @click="adding = false">Leave it</VBtn>
      </div>
    </VForm>
    <p v-if="problem" class="hint clay" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
section {
  margin-top: 28px;
}
h2 span {
  margin-left: 8px;
  font-weight: 400;
  font-size: 12.5px;
  color: var(--soft);
}
.list {
  list-style: none;
  margin: 8px 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
  gap: 6px 14px;
}
.list li {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 36px;
  padding-left: 8px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: #fff;
}
.sign {
  flex: none;
  width: 24px;
  height: 24px;
  object-fit: contain;
  color: var(--water);
}
.of {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.begin {
  margin-top: 6px;
}
.add {
  position: relative;
  display: grid;
  gap: 10px;
  margin-top: 8px;
  padding: 12px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: #f5f8f7;
}
.of-what {
  display: grid;
  grid-template-columns: 160px minmax(0, 1fr);
  gap: 12px;
  align-items: end;
}
.pick {
  display: grid;
  gap: 6px;
  justify-items: start;
}
.pick > :deep(*) {
  width: 100%;
}
.pop {
  position: absolute;
  z-index: 20;
  left: 12px;
  bottom: 100%;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
