<script setup lang="ts">
import { formatExactSize, formatSize } from '~~/core/files/size'
import { opensInBrowser } from '~~/core/files/mediaType'
import type { FileDetails } from '~/stores/library'

/** Everything known about one file. */
const props = defineProps<{ id: string }>()
const library = useLibrary()
const session = useSession()
const notices = useNotices()

const file = ref<FileDetails>()
const failure = ref('')
const title = ref('')
const handle = ref('')
const renaming = ref(false)
const problem = ref('')
const deleting = ref(false)

async function load() {
  try {
    file.value = await library.details(props.id)
    title.value = file.value.title
    handle.value = file.value.handle
    document.title = `${file.value.title} · Trough`
    if (file.value.preview === 'waiting') setTimeout(load, 1000)
  }
  catch (error) {
    failure.value = wordsOf(error)
  }
}
onMounted(load)

async function saveTitle() {
  if (!file.value || title.value.trim() === file.value.title) return
  try {
    await library.change(props.id, { title: title.value })
    await load()
  }
  catch (error) {
    title.value = file.value.title
    notices.say(wordsOf(error), { tone: 'attention' })
  }
}

async function saveHandle() {
  problem.value = ''
  try {
    await library.change(props.id, { handle: handle.value.trim() })
    renaming.value = false
    await load()
  }
  catch (error) {
    problem.value = wordsOf(error)
  }
}

async function restore() {
  await library.restore(props.id)
  await load()
}

const opens = computed(() => !!file.value && opensInBrowser(file.value.mediaType) && file.value.size > 0)
const path = computed(() => `/files/${file.value?.handle}`)
const links = computed(() => [
  ...opens.value ? [{ name: 'Opens', address: `${path.value}?open` }] : [],
  { name: 'Saves', address: `${path.value}?save` },
  ...opens.value ? [{ name: 'Opens, in full', address: session.fullAddress(`${path.value}?open`) }] : [],
  { name: 'Saves, in full', address: session.fullAddress(`${path.value}?save`) },
])
const facts = computed(() => {
  const it = file.value!
  return [
    ['File name', it.fileName],
    ['Type', it.mediaType],
    ['Size', formatSize(it.size), formatExactSize(it.size)],
    ...it.pages ? [['Pages', String(it.pages)]] : [],
    ...it.width ? [['Pixels', `${it.width} × ${it.height}`]] : [],
    ['Edition', `${it.edition}, since ${longDate(it.changed)}`],
    ['Added', longDate(it.created)],
    ['Downloads', it.downloads.toLocaleString()],
    ['SHA-256', it.sha256],
    ['CRC-32', it.crc32],
  ]
})
</script>

<template>
  <div class="file-board">
    <p v-if="failure" class="failure" role="alert">{{ failure }} <NuxtLink to="/desk">All pages</NuxtLink></p>
    <template v-else-if="file">
      <header class="board-head">
        <NuxtLink to="/desk" class="back">Pages</NuxtLink>
        <TypeTag :tag="file.tag" :family="file.family" />
        <h1 class="tr-ellipsis">{{ file.title }}</h1>
      </header>
      <div class="content">
        <div class="left">
          <FilePicture :file="file" class="picture" />
          <p v-if="file.preview === 'waiting'" class="hint">The picture is being made…</p>
          <p v-else-if="file.preview === 'failed'" class="hint clay">No picture: {{ file.previewError }}</p>
          <a class="plain" :href="opens ? `${path}?open` : `${path}?save`" :target="opens ? '_blank' : undefined">Try it as a visitor</a>
        </div>
        <div class="right">
          <p v-if="file.deleted" class="remark">In the bin since {{ longDate(file.deleted) }}. Visitors are told that it is no longer here. <button type="button" class="plain" @click="restore">Restore</button></p>
          <p v-for="remark in file.remarks" :key="remark" class="remark">{{ remark }}</p>
          <p v-for="twin in file.twins" :key="twin.id" class="remark mild">“<NuxtLink :to="`/desk/files/${twin.id}`">{{ twin.title }}</NuxtLink>” holds the same bytes.</p>

          <label class="field"><span>Title</span><input v-model="title" type="text" maxlength="200" @change="saveTitle" @keydown.enter="saveTitle"></label>

          <section aria-labelledby="links-head">
            <h2 id="links-head">Direct link</h2>
            <CopyLine v-for="link in links" :key="link.name" v-bind="link" />
            <form v-if="renaming" class="handle" @submit.prevent="saveHandle">
              <label class="field"><span>New address</span><span class="with-path"><code>/files/</code><input v-model="handle" type="text" maxlength="80"></span></label>
              <p class="hint">The old address leads on to the new one, for ever.</p>
              <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
              <div class="acts"><button type="submit" class="plain strong">Change</button><button type="button" class="plain" @click="renaming = false; handle = file!.handle">Cancel</button></div>
            </form>
            <button v-else type="button" class="plain" @click="renaming = true">Change the address…</button>
          </section>

          <section aria-labelledby="uses-head">
            <h2 id="uses-head">{{ file.usedIn.length ? `Used in ${counted(file.usedIn.length, 'place')}` : 'Not used on any page' }}</h2>
            <ul class="uses">
              <li v-for="use in file.usedIn" :key="use.placement">
                <NuxtLink :to="`/desk/pages/${use.pageId}`">{{ use.pageTitle }}</NuxtLink>
                <span>{{ use.kind }} “{{ use.label }}”</span>
                <span class="side">{{ use.live ? use.draft ? 'live' : 'live, not in the draft' : 'in the draft' }}</span>
              </li>
            </ul>
          </section>

          <section aria-labelledby="facts-head">
            <h2 id="facts-head">Known about it</h2>
            <dl>
              <template v-for="[name, value, exact] in facts" :key="name"><dt>{{ name }}</dt><dd :class="{ mono: name === 'SHA-256' || name === 'CRC-32' || name === 'File name' || name === 'Type' }" :title="exact">{{ value }}</dd></template>
            </dl>
          </section>
          <button v-if="!file.deleted" type="button" class="plain clay" @click="deleting = true">Delete…</button>
        </div>
      </div>
      <DeleteFileDialog v-if="deleting" :file="file" @close="deleting = false" @done="deleting = false; load()" />
    </template>
  </div>
</template>

<style scoped>
.file-board { flex: 1; min-height: 0; overflow: auto; }
.content { display: grid; grid-template-columns: 220px minmax(0, 1fr); gap: 22px; padding: 18px 18px 40px; background: #fff; min-height: calc(100% - 45px); box-sizing: border-box; }
.left { display: grid; gap: 8px; align-content: start; }
.picture { width: 220px; height: 290px; }
.right { display: grid; gap: 20px; align-content: start; max-width: 720px; }
.remark { padding: 8px 10px; background: #F6E3D8; border-left: 4px solid var(--clay); border-radius: 0 3px 3px 0; line-height: 1.45; }
.remark.mild { background: #F7EFD6; border-color: var(--straw); }
.handle { display: grid; gap: 6px; padding: 8px 0; }
.with-path { display: flex; align-items: center; gap: 4px; }
.with-path input { flex: 1; }
.uses { list-style: none; margin: 0; padding: 0; }
.uses li { display: flex; flex-wrap: wrap; gap: 2px 10px; padding: 5px 0; border-bottom: 1px solid var(--line); }
.uses .side { margin-left: auto; color: var(--soft); }
dl { display: grid; grid-template-columns: 112px minmax(0, 1fr); gap: 5px 8px; margin: 0; }
dt { color: var(--soft); }
dd { margin: 0; overflow-wrap: anywhere; }
.failure { padding: 20px; }
@container (max-width: 560px) {
  .content { grid-template-columns: minmax(0, 1fr); }
}
</style>
