<script setup lang="ts">
import type { Use } from '~~/core/files/fileItem'
import { slugFromTitle, slugSchema } from '~~/core/page/slug'
import { STARTS, type StartName } from '~~/core/page/starts'

const pages = usePages()
const notices = useNotices()
useHead({ title: 'Pages' })

const EDGE_WORDS = { head: 'Name of the site, and its menu', foot: 'Hours, address, links' }

const adding = ref(false)
const title = ref('')
const slug = ref('')
const ownSlug = ref(false)
const start = ref<StartName | ''>('')
const error = ref('')
const field = ref<HTMLInputElement>()

const slugProblem = computed(() => {
  if (!slug.value) return ''
  const result = slugSchema.safeParse(slug.value)
  return result.success ? '' : result.error.issues[0]!.message
})
watch(title, value => ownSlug.value || (slug.value = value ? slugFromTitle(value) : ''))

async function open() {
  adding.value = true
  await nextTick()
  field.value?.focus()
}

async function create() {
  error.value = ''
  try {
    const page = await pages.create({ title: title.value, slug: slug.value || undefined, start: start.value || undefined })
    await navigateTo(`/desk/pages/${page.id}`)
  } catch (caught) {
    error.value = wordsOf(caught)
  }
}

const publishing = ref(false)
async function publishWaiting() {
  publishing.value = true
  try {
    const { live, left } = await pages.publishWaiting()
    void useLibrary().refresh()
    if (live.length) notices.say(live.length === 1 ? `“${live[0]!.title}” is live.` : `${live.length} pages are live.`, { tone: 'works' })
    if (left.length)
      notices.say(
        `Not published, since places on ${left.length === 1 ? 'it' : 'them'} lead nowhere: ${left.map(page => `“${page.title}”`).join(', ')}.`,
        { tone: 'attention' },
      )
  } catch (caught) {
    notices.say(wordsOf(caught), { tone: 'attention' })
  } finally {
    publishing.value = false
  }
}

/** a page that shall go, and the places on other pages that hold that back */
const held = shallowRef<{ page: { id: string; title: string }; uses: Use[] }>()
async function remove(page: { id: string; title: string; published: string | null }) {
  const live = page.published ? ' Visitors will no longer find it.' : ''
  if (!window.confirm(`Remove the page "${page.title}" with its earlier versions? This cannot be undone.${live}`)) return
  await removeNow(page)
}
async function removeNow(page: { id: string; title: string }, despite = false) {
  try {
    const uses = await pages.remove(page.id, despite)
    held.value = uses.length ? { page, uses } : undefined
  } catch (caught) {
    notices.say(wordsOf(caught), { tone: 'attention' })
  }
}
</script>

<template>
  <div class="pages">
    <header class="board-head">
      <h1>Pages</h1>
      <span class="acts">
        <button v-if="pages.waiting.length" type="button" class="plain strong" :disabled="publishing" @click="publishWaiting">
          {{
            publishing
              ? 'Publishing…'
              : `Publish ${counted(pages.waiting.length, 'page')} that ${pages.waiting.length === 1 ? 'waits' : 'wait'}`
          }}
        </button>
        <NuxtLink to="/desk/signposts" class="plain">Signposts</NuxtLink>
        <NuxtLink to="/desk/looks" class="plain">Looks</NuxtLink>
        <button type="button" class="plain strong" @click="open">New page</button>
      </span>
    </header>
    <form v-if="adding" class="new" @submit.prevent="create">
      <label class="field"><span>Title</span><input ref="field" v-model="title" type="text" maxlength="200" required /></label>
      <label class="field"
        ><span>Address</span
        ><span class="slug"><code>/</code><input v-model="slug" type="text" maxlength="80" @input="ownSlug = true" /></span
      ></label>
      <fieldset class="field starts">
        <legend>Begins with</legend>
        <label><input v-model="start" type="radio" name="start" value="" /><b>Nothing</b><span>An empty page</span></label>
        <label v-for="(each, name) in STARTS" :key="name"
          ><input v-model="start" type="radio" name="start" :value="name" /><b>{{ each.words }}</b
          ><span>{{ each.hint }}</span></label
        >
      </fieldset>
      <p v-if="error || slugProblem" class="problem" role="alert">{{ error || slugProblem }}</p>
      <div class="acts">
        <button type="submit" class="main" :disabled="!title.trim() || !!slugProblem">Make the page</button>
        <button type="button" class="plain" @click="adding = false">Cancel</button>
      </div>
    </form>
    <ul class="list">
      <li v-for="page in pages.items" :key="page.id">
        <NuxtLink :to="`/desk/pages/${page.id}`" class="row">
          <span class="name">{{ page.title }}</span>
          <code class="address">/{{ page.slug }}</code>
          <PageState :page="page" />
        </NuxtLink>
        <span class="row-acts">
          <a v-if="page.published" class="plain" :href="`/${page.slug}`" target="_blank" :aria-label="`View ${page.title} live`"
            >View live</a
          >
          <button v-if="page.slug" type="button" class="plain quiet" :aria-label="`Remove ${page.title}`" @click="remove(page)">
            Remove
          </button>
        </span>
      </li>
    </ul>
    <h2 v-if="pages.loaded" class="list-head">On every page</h2>
    <ul v-if="pages.loaded" class="list">
      <li v-for="page in pages.edges" :key="page.id">
        <NuxtLink :to="`/desk/pages/${page.id}`" class="row">
          <span class="name">{{ page.title }}</span>
          <span class="what">{{ EDGE_WORDS[page.edge!] }}</span>
          <PageState :page="page" />
        </NuxtLink>
        <span class="row-acts" />
      </li>
    </ul>
    <LedToDialog
      v-if="held"
      :page="held.page"
      :uses="held.uses"
      act="Remove the page"
      @close="held = undefined"
      @go="removeNow(held.page, $event)"
    />
    <p v-if="pages.loaded" class="hint-line">
      Open a page and drop a file where its button should be. Publish puts the whole page live in one step.
    </p>
  </div>
</template>

<style scoped>
.pages {
  flex: 1;
  overflow: auto;
  padding-bottom: 30px;
}
.new {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 14px;
  padding: 14px 16px;
  background: #fff;
  border-bottom: 1px solid var(--line);
}
.new .problem,
.new .acts {
  grid-column: 1 / -1;
}
.starts {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(172px, 1fr));
  gap: 6px;
}
.starts legend {
  margin-bottom: 3px;
}
.starts label {
  position: relative;
  display: grid;
  gap: 1px;
  align-content: start;
  padding: 8px 10px;
  border: 1px solid #c3cecb;
  border-radius: 4px;
  font-size: 12.5px;
  line-height: 1.35;
}
.starts input {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  margin: 0;
  opacity: 0;
  cursor: pointer;
}
.starts b {
  font-weight: 600;
  font-size: 13.5px;
}
.starts span {
  color: var(--soft);
}
.starts label:has(:checked) {
  border-color: var(--water);
  box-shadow: inset 3px 0 var(--water);
  background: #edf3f2;
}
.starts label:has(:focus-visible) {
  outline: 2px solid var(--water);
  outline-offset: 1px;
}
.slug {
  display: flex;
  align-items: center;
  gap: 4px;
}
.slug input {
  flex: 1;
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  align-items: center;
  gap: 4px;
  padding-right: 10px;
  background: #fff;
  border-bottom: 1px solid var(--line);
}
.row {
  flex: 1;
  min-width: 0;
  display: grid;
  grid-template-columns: minmax(120px, 1.4fr) minmax(80px, 1fr) minmax(140px, 1fr);
  gap: 2px 14px;
  align-items: center;
  min-height: 44px;
  padding: 6px 16px;
  color: inherit;
  text-decoration: none;
}
.row-acts {
  width: 148px;
  display: flex;
  justify-content: flex-start;
}
.row:hover {
  background: #f3f7f6;
}
.name {
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.address {
  color: var(--soft);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.list-head {
  padding: 18px 16px 6px;
  font-size: 13px;
  font-weight: 600;
}
.what {
  color: var(--soft);
}
.hint-line {
  padding: 22px 16px;
  color: var(--soft);
}
@container (max-width: 560px) {
  .row {
    grid-template-columns: auto minmax(0, 1fr);
  }
  .name {
    grid-column: 1 / -1;
  }
  .board-head {
    flex-wrap: wrap;
    padding-block: 6px;
  }
  .board-head .acts {
    flex-basis: 100%;
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
  .row-acts {
    width: auto;
    flex-direction: column;
    align-items: flex-end;
  }
  .new {
    grid-template-columns: 1fr;
  }
}
</style>
