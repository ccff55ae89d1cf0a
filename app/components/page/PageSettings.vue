<script setup lang="ts">
import type { FileItem } from '~~/core/files/item'
import { slugSchema } from '~~/core/page/slug'
import type { PageSettings } from '~~/core/page/item'

/** What holds of the open page as a whole; it stands in the margin while nothing on the page is selected. */
const emit = defineEmits<{ restore: [version: number] }>()
const page = usePage()
const pages = usePages()
const notices = useNotices()

const current = computed(() => page.current!)
const slug = ref(current.value.slug)
const description = ref(current.value.description)
const { problem, attempt } = useAttempt()
const showsVersions = ref(false)
const showsHtml = ref(false)
const { versions, load: loadVersions } = usePageVersions()
const KIND_WORDS = { added: 'New', removed: 'Gone', changed: 'Changed', moved: 'Moved' }

watch(() => current.value.slug, now => slug.value = now)
watch([showsVersions, () => page.live], () => showsVersions.value && attempt(() => loadVersions(current.value.id)))

const set = (settings: PageSettings) => attempt(() => page.setUp(settings))

/** shown where other programs preview a link to this page */
const shared = computed(() => current.value.picture ? useLibrary().known.get(current.value.picture) : undefined)
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
  if (await set({ slug: to })) notices.say(`The page is at /${to} now; /${from} leads there.`, { tone: 'works', action: { label: 'Undo', run: () => void set({ slug: from }) } })
}

async function duplicate() {
  await attempt(async () => {
    await page.save()
    await navigateTo(`/desk/pages/${(await pages.duplicate(current.value.id)).id}`)
  })
}

async function unpublish() {
  if (!window.confirm(`Take “${current.value.title}” from visitors? The draft and its earlier versions stay here.`)) return
  await attempt(async () => await page.unpublish() && notices.say(`Visitors no longer find /${current.value.slug}.`, {}))
}
</script>

<template>
  <section class="settings" aria-label="Settings of this page">
    <template v-if="current.slug">
      <label class="field"><span>Address of this page</span>
        <span class="slug"><code>/</code><input v-model="slug" type="text" maxlength="80" spellcheck="false" @change="move"></span>
      </label>
    </template>
    <p v-else class="hint">The home page, at <code>/</code>.</p>
    <label class="field"><span>In a few words, for search engines</span>
      <textarea v-model="description" rows="3" maxlength="300" @change="set({ description })" />
    </label>
    <label class="tick"><input type="checkbox" :checked="current.inMenu" @change="set({ inMenu: ($event.target as HTMLInputElement).checked })"> In the site’s menu while it is live</label>
    <div class="field shared"><span>Picture that goes with links to this page</span>
      <span class="chosen">
        <template v-if="shared"><FilePicture :file="shared" class="thumb" /><b>{{ shared.title }}</b></template>
        <button type="button" class="plain" @click="choosing = !choosing">{{ shared ? 'Another…' : 'Choose a picture…' }}</button>
        <button v-if="shared" type="button" class="plain" @click="set({ picture: null })">None</button>
      </span>
      <FileFinder v-if="choosing" label="Find a picture for links to this page" family="picture" @choose="show" @close="choosing = false" />
    </div>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>

    <div class="waits">
      <h2>{{ page.changes.length ? 'Visitors do not see yet' : 'Visitors see it as it stands' }}</h2>
      <ul v-if="page.changes.length">
        <li v-for="(change, index) in page.changes.slice(0, 12)" :key="index"><b>{{ KIND_WORDS[change.kind] }}</b> {{ change.what }}</li>
        <li v-if="page.changes.length > 12">and {{ page.changes.length - 12 }} more</li>
      </ul>
    </div>

    <details :open="showsVersions" @toggle="showsVersions = ($event.target as HTMLDetailsElement).open">
      <summary>Versions that were live</summary>
      <p v-if="versions && !versions.length" class="hint">It was never live.</p>
      <ol v-if="versions?.length" class="versions">
        <li v-for="version in versions" :key="version.number">
          <span class="when" :title="longDate(version.published)">{{ longDate(version.published) }}<template v-if="version.live">, live now</template></span>
          <span class="what">{{ version.changes.slice(0, 3).map(change => `${KIND_WORDS[change.kind]}: ${change.what}`).join('; ') || 'the same again' }}<template v-if="version.changes.length > 3">; and {{ version.changes.length - 3 }} more</template></span>
          <button v-if="!version.live" type="button" class="plain" @click="emit('restore', version.number)">Bring back</button>
        </li>
      </ol>
    </details>

    <div class="acts">
      <button type="button" class="plain" @click="duplicate">Duplicate page</button>
      <button type="button" class="plain" @click="showsHtml = true">Show HTML…</button>
      <button v-if="current.published && current.slug" type="button" class="plain" @click="unpublish">Take offline</button>
    </div>
    <HtmlDialog v-if="showsHtml" @close="showsHtml = false" />
  </section>
</template>

<style scoped>
.settings { display: grid; gap: 12px; padding: 12px 12px 30px 18px; align-content: start; }
.chosen { display: flex; flex-wrap: wrap; align-items: center; gap: 4px 8px; }
.shared b { font-weight: 500; }
.thumb { width: 48px; height: 36px; }
.slug { display: flex; align-items: center; gap: 4px; }
.slug input { flex: 1; min-width: 0; }
textarea { width: 100%; resize: vertical; padding: 5px 8px; line-height: 1.4; }
.tick { display: flex; align-items: center; gap: 8px; }
.tick input { accent-color: var(--water); }
h2 { font-size: 13px; font-weight: 600; }
.waits { border-top: 1px solid var(--line); padding-top: 10px; }
.waits ul { list-style: none; margin: 6px 0 0; padding: 0; display: grid; gap: 3px; font-size: 12.5px; line-height: 1.4; }
.waits li { overflow-wrap: anywhere; }
details { border-top: 1px solid var(--line); padding-top: 10px; }
summary { cursor: pointer; font-weight: 600; }
.versions { list-style: none; margin: 8px 0 0; padding: 0; display: grid; gap: 10px; max-height: 320px; overflow: auto; }
.versions li { display: grid; gap: 2px; justify-items: start; }
.when { font-weight: 600; font-size: 12.5px; }
.what { color: var(--soft); font-size: 12.5px; line-height: 1.4; overflow-wrap: anywhere; }
.versions .plain { margin-left: -8px; }
.acts { display: flex; flex-wrap: wrap; gap: 4px; border-top: 1px solid var(--line); padding-top: 8px; margin-left: -8px; }
</style>
