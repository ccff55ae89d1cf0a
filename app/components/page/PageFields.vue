<script setup lang="ts">
import type { FileItem } from '~~/core/files/fileItem'
import type { PageSettings } from '~~/core/page/pageItem'
import { slugSchema } from '~~/core/page/slug'

/** What is said of the open page at once, draft and live: its address, and what is shown of it elsewhere. */
const page = usePage()
const notices = useNotices()

const current = computed(() => page.current!)
const slug = ref(current.value.slug)
const description = ref(current.value.description)
const { problem, attempt } = useAttempt()
watch(
  () => current.value.slug,
  now => (slug.value = now),
)

const set = (settings: PageSettings) => attempt(() => page.setUp(settings))

/** shown where other programs preview a link to this page */
const shared = computed(() => (current.value.picture ? useLibrary().known.get(current.value.picture) : undefined))
const choosing = ref(false)
function show(file: FileItem) {
  choosing.value = false
  void set({ picture: file.id })
}

async function move() {
  const [from, to] = [current.value.slug, slug.value.trim()]
  if (from === to) return
  const checked = slugSchema.safeParse(to)
  if (!checked.success) {
    problem.value = checked.error.issues[0]!.message
    return
  }
  if (await set({ slug: to }))
    notices.say(`The page is at /${to} now; /${from} leads there.`, {
      tone: 'works',
      action: { label: 'Undo', run: () => void set({ slug: from }) },
    })
}
</script>

<template>
  <div class="fields">
    <template v-if="current.slug">
      <label class="field"
        ><span>Address of this page</span>
        <span class="slug"><code>/</code><input v-model="slug" type="text" maxlength="80" spellcheck="false" @change="move" /></span>
      </label>
    </template>
    <p v-else class="hint">The home page, at <code>/</code>.</p>
    <label class="field"
      ><span>In a few words, for search engines</span>
      <textarea v-model="description" rows="3" maxlength="300" @change="set({ description })" />
    </label>
    <label class="tick"
      ><input type="checkbox" :checked="current.inMenu" @change="set({ inMenu: ($event.target as HTMLInputElement).checked })" /> In the
      site’s menu while it is live</label
    >
    <div class="field shared">
      <span>Picture that goes with links to this page</span>
      <span class="chosen">
        <template v-if="shared"
          ><FilePicture :file="shared" class="thumb" /><b>{{ shared.title }}</b></template
        >
        <button type="button" class="plain" @click="choosing = !choosing">{{ shared ? 'Another…' : 'Choose a picture…' }}</button>
        <button v-if="shared" type="button" class="plain" @click="set({ picture: null })">None</button>
      </span>
      <FileFinder v-if="choosing" label="Find a picture for links to this page" family="picture" @choose="show" @close="choosing = false" />
    </div>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 12px;
  align-content: start;
}
.chosen {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
}
.shared b {
  font-weight: 500;
}
.thumb {
  width: 48px;
  height: 36px;
}
.slug {
  display: flex;
  align-items: center;
  gap: 4px;
}
.slug input {
  flex: 1;
  min-width: 0;
}
textarea {
  width: 100%;
  resize: vertical;
  padding: 5px 8px;
  line-height: 1.4;
}
.tick {
  display: flex;
  align-items: center;
  gap: 8px;
}
.tick input {
  accent-color: var(--water);
}
</style>
