<script setup lang="ts">
import { CLOSED_GATE } from '~~/core/gate/gate'
import { gateOf } from '~~/core/gate/standing'
import type { FileRight } from '~~/core/rights/rights'
import { isZip } from '~~/core/files/mediaType'
import { opensInBrowser } from '~~/core/files/mediaType'
import { seePath } from '~~/core/see/seeAddress'
import { formatSize } from '~~/core/files/size'
import type { FileDetails } from '~~/core/files/fileDetails'

/** Everything known about one file: what is in it, and, in the margin, what is said of it. */
const props = defineProps<{ id: string }>()
const rights = useRights()
const library = useLibrary()
const folders = useFolders()
const session = useSession()
const selection = useSelection()
const jobs = useJobs()
const mayBeSeen = useLooking()
const reading = useReading()
const route = useRoute()

const file = ref<FileDetails>()
const may = (right: FileRight) => !!file.value && rights.mayFile(right, file.value)
const failure = ref('')
const deleting = ref(false)
const replacing = ref(false)
const titleField = ref<HTMLInputElement>()
const title = ref('')
/** while it is typed into, nothing else may write there */
const titling = ref(false)

let turn = 0

async function load() {
  const mine = ++turn
  try {
    const fresh = await library.details(props.id)
    // What was asked for first may come last.
    if (mine !== turn) return
    if (!titling.value) title.value = fresh.title
    file.value = fresh
    document.title = `${fresh.title} · Trough`
  } catch (error) {
    failure.value = wordsOf(error)
  }
}
onMounted(async () => {
  await load()
  if (route.hash === '#title') {
    await nextTick()
    titleField.value?.select()
  }
})
watch(
  () => library.changes,
  () => void load(),
)

async function saveTitle() {
  const asked = title.value.trim()
  if (!file.value || !asked || asked === file.value.title) {
    title.value = file.value?.title ?? ''
    return
  }
  await selection.attempt(() => library.change(props.id, { title: asked }))
  await load()
}

const { over, target } = useEditionDrop(() => file.value!)

const opens = computed(() => !!file.value && opensInBrowser(file.value.mediaType) && file.value.size > 0)
/** visitors have nothing of it, whatever its name is */
const closed = computed(() => !!file.value && gateOf(file.value, folders.tree) === CLOSED_GATE)
const path = computed(() => `/files/${file.value?.handle}`)
const canUnpack = computed(() => isZip(file.value?.mediaType ?? ''))
const links = computed(() => [
  ...(opens.value ? [{ name: 'Opens', address: `${path.value}?open` }] : []),
  { name: 'Saves', address: `${path.value}?save` },
  ...(file.value && mayBeSeen(file.value) ? [{ name: 'Shows what is in it', address: seePath(file.value.handle) }] : []),
  ...(opens.value ? [{ name: 'Opens, in full', address: session.fullAddress(`${path.value}?open`) }] : []),
  { name: 'Saves, in full', address: session.fullAddress(`${path.value}?save`) },
])

/** Takes the better name; the address stays as it is. */
async function takeName(fileName: string) {
  const before = file.value!.fileName
  await selection.attempt(async () => {
    await library.change(props.id, { fileName })
    useNotices().say(`Visitors now save it as ${fileName}. The address stays.`, {
      tone: 'works',
      action: { label: 'Undo', run: () => library.change(props.id, { fileName: before }) },
    })
  })
}
</script>

<template>
  <div v-drop="file && !file.bundle && !file.deleted && may('renew') ? target : undefined" class="file-board" :class="{ over }">
    <p v-if="failure" class="failure" role="alert">{{ failure }} <NuxtLink to="/desk">All pages</NuxtLink></p>
    <template v-else-if="file">
      <header class="board-head">
        <BackLink />
        <TypeTag :tag="file.tag" :family="file.family" />
        <h1>{{ file.title }}</h1>
        <a v-if="!closed" class="plain" :href="opens ? `${path}?open` : `${path}?save`" :target="opens ? '_blank' : undefined"
          >Try it as a visitor</a
        >
      </header>
      <div class="content">
        <div class="look">
          <p v-if="file.deleted" class="remark">
            In the bin since {{ longDate(file.deleted) }}. Visitors are told that it is no longer here.
            <VBtn v-if="may('delete')" @click="selection.attempt(() => selection.restore({ files: [file!.id], folders: [] }))">
              Restore
            </VBtn>
          </p>
          <p v-if="file.withdrawn && !file.deleted" class="remark">
            Edition {{ file.edition }} was withdrawn: visitors are told so, and its buttons are not shown to them.
          </p>
          <ArrivalLine v-if="closed && rights.may('contacts')" :key="file.id" :file-id="file.id" />
          <p v-for="remark in file.remarks" :key="remark" class="remark">{{ remark }}</p>
          <p v-if="file.facts.scanned" class="hint">
            Its pages are pictures: nobody finds it by words inside. Run it through a text recognition and put it in as the next edition.
          </p>
          <p v-if="file.reading === 'failed'" class="remark">
            {{ file.readingError }}
            <VBtn v-if="may('edit')" @click="selection.attempt(() => reading.again([file!.id]))">Read it again</VBtn>
          </p>
          <p v-for="twin in file.twins" :key="twin.id" class="remark mild">
            “<NuxtLink :to="`/desk/files/${twin.id}`">{{ twin.title }}</NuxtLink
            >” holds the same bytes.
          </p>
          <BundleComposer v-if="file.bundle" :id="file.id" />
          <FileView v-else :file="file" />
          <p v-if="canUnpack && !file.bundle && !file.deleted && may('put')" class="acts">
            <VBtn variant="outlined" @click="selection.attempt(() => jobs.unpack(file!.id))"> Unpack into the library</VBtn
            ><VBtn
              v-if="file.facts.bag"
              variant="outlined"
              title="With titles, addresses, editions and folders, every byte checked"
              @click="selection.attempt(() => jobs.bringInBag(file!.id))"
            >
              Bring in what is in this bag</VBtn
            ><span class="hint">Into a folder of its name, beside the zip. The zip stays.</span>
          </p>
        </div>
        <aside class="margin" aria-label="What is said of it">
          <VTextField
            ref="titleField"
            v-model="title"
            label="Title"
            :readonly="!may('edit')"
            maxlength="200"
            @update:focused="titling = $event"
            @change="saveTitle"
            @keydown.enter="saveTitle"
          />
          <NameAdvice
            v-if="file.advice && !file.deleted && !closed && may('edit')"
            :advice="file.advice"
            :file-name="file.fileName"
            @take="takeName"
          />
          <FileDescription :file="file" />
          <section aria-labelledby="links-head">
            <h2 id="links-head">Direct link</h2>
            <CopyLine v-for="link in links" :key="link.name" v-bind="link" />
            <CampaignAddress :address="links.at(-1)!.address" />
            <HandleForm v-if="may('edit')" :file="file" @done="load" />
          </section>
          <PersonalLinks v-if="!file.deleted && rights.may('gates')" :file-id="file.id" />
          <section aria-labelledby="uses-head">
            <h2 id="uses-head">{{ file.usedIn.length ? `Used in ${counted(file.usedIn.length, 'place')}` : 'Not used anywhere' }}</h2>
            <PlaceList :uses="file.usedIn" />
            <VBtn v-if="!file.deleted && rights.mends && (file.usedIn.length || file.bundles.length)" @click="replacing = true">
              Another file in its place…
            </VBtn>
          </section>
          <section v-if="file.bundles.length" aria-labelledby="bundles-head">
            <h2 id="bundles-head">In {{ counted(file.bundles.length, 'bundle') }}</h2>
            <ul class="uses">
              <li v-for="bundle in file.bundles" :key="bundle.id">
                <NuxtLink :to="`/desk/files/${bundle.id}`">{{ bundle.title }}</NuxtLink><span class="side mono">{{
                  formatSize(bundle.size)
                }}</span>
              </li>
            </ul>
          </section>
          <EditionList v-if="!file.bundle" :file="file" />
          <FileFacts :file="file" />
          <VBtn v-if="!file.deleted && may('delete')" color="clay" @click="deleting = true">Delete…</VBtn>
        </aside>
      </div>
      <ReplaceDialog v-if="replacing" :from="{ target: { kind: 'file', id: file.id }, title: file.title }" @close="replacing = false" />
      <DeleteDialog
        v-if="deleting"
        :things="{ files: [file.id], folders: [] }"
        :title="file.title"
        @close="deleting = false"
        @done="
          () => {
            deleting = false
            load()
          }
        "
      />
    </template>
  </div>
</template>

<style scoped>
.file-board {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.file-board.over {
  box-shadow: inset 0 0 0 3px var(--water);
}
.content {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 312px;
  background: #fff;
}
.look {
  min-height: 0;
  overflow: auto;
  display: grid;
  gap: 10px;
  align-content: start;
  padding: 14px 16px 30px;
}
.margin {
  min-height: 0;
  overflow: auto;
  display: grid;
  gap: 18px;
  align-content: start;
  padding: 14px 16px 30px;
  background: #f5f8f7;
  border-left: 1px solid var(--line);
}
.margin > * {
  min-width: 0;
}
.remark {
  padding: 8px 10px;
  background: #f6e3d8;
  border-left: 4px solid var(--clay);
  border-radius: 0 3px 3px 0;
  line-height: 1.45;
}
.remark.mild {
  background: #f7efd6;
  border-color: var(--straw);
}
.uses {
  list-style: none;
  margin: 0;
  padding: 0;
}
.uses li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  padding: 5px 0;
  border-bottom: 1px solid var(--line);
}
.uses .side {
  margin-left: auto;
  color: var(--soft);
}
.failure {
  padding: 20px;
}
@container (max-width: 680px) {
  .content {
    display: block;
    overflow: auto;
  }
  .look,
  .margin {
    overflow: visible;
  }
  .back {
    white-space: nowrap;
  }
  .margin {
    border-left: 0;
    border-top: 1px solid var(--line);
  }
}
</style>
