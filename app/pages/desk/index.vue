<script setup lang="ts">
import type { Edge } from '~~/core/page/edges'
import type { Use } from '~~/core/files/fileItem'
import { newPageSchema, type PageItem } from '~~/core/page/pageItem'
import { slugFromTitle, slugOf } from '~~/core/page/slug'
import { STARTS, type StartName } from '~~/core/page/starts'

const rights = useRights()
const pages = usePages()
const notices = useNotices()
const asking = useAsking()
const session = useSession()
useHead({ title: 'Pages' })

const EDGE_WORDS: Record<Edge, string> = { head: 'Name of the site, and its menu', foot: 'Hours, address, links' }

const adding = ref(false)
const ownSlug = ref(false)
/** what it begins with; nothing of it is asked of the server where it is empty */
const start = ref<StartName | ''>('')
const form = useForm({
  schema: newPageSchema.pick({ title: true, slug: true }).required(),
  begin: () => ({ title: '', slug: '' }),
  send: async given => {
    const page = await pages.create({ ...given, start: start.value || undefined })
    await navigateTo(`/desk/pages/${page.id}`)
  },
})
watch(
  () => form.fields.title,
  title => ownSlug.value || (form.fields.slug = title ? slugFromTitle(title) : ''),
)

function open() {
  form.reset()
  adding.value = true
}

/** Nothing was ever live: the way to a first site is offered until it is left, or walked. */
const isNew = computed(() => pages.loaded && !pages.items.some(({ published }) => published))
const leftWay = useLocalStorage('trough-first-steps-left', false)
/** Pages go live one after another: the way ends with the last. */
const goesLive = ref(false)
const showsWay = computed(() => (isNew.value || goesLive.value) && !leftWay.value && rights.owner)

const publishing = ref(false)
async function publishWaiting() {
  publishing.value = true
  try {
    const { live, left } = await pages.publishWaiting()
    void useLibrary().refresh()
    if (live.length)
      notices.say(live.length === 1 ? `“${live[0]!.title}” is live.` : `${live.length} pages are live.`, {
        tone: 'works',
        action: { label: 'View live', run: () => window.open(`/${live.findLast(({ edge }) => !edge)?.slug ?? ''}`, '_blank', 'noopener') },
      })
    if (left.length)
      notices.say(
        `Not published, since places on ${left.length === 1 ? 'it' : 'them'} lead nowhere: ${left.map(page => `“${page.title}”`).join(', ')}.`,
        { tone: 'attention' },
      )
  } catch (caught) {
    notices.refused(caught)
  } finally {
    publishing.value = false
  }
}
async function goLive() {
  goesLive.value = true
  await publishWaiting()
  goesLive.value = false
}

const removesLive = computed(() => rights.may('write') && rights.may('publish'))
const removes = ({ published }: PageItem) => (published ? removesLive.value : rights.may('write'))
/** a page that shall go, and the places on other pages that hold that back */
const held = shallowRef<{ page: { id: string; title: string }; uses: Use[] }>()
const { attempt } = useSelection()
const remove = (page: { id: string; title: string }, despite = false) =>
  attempt(async () => {
    const uses = await pages.remove(page.id, despite)
    held.value = uses.length ? { page, uses } : undefined
    if (!uses.length) notices.say(`“${page.title}” is in the bin.`, { action: { label: 'Undo', run: () => restore(page) } })
  })
const restore = (page: { id: string; title: string; slug?: string }) =>
  attempt(async () => {
    const { slug, gateGone } = await pages.restore(page.id)
    const elsewhere = page.slug !== undefined && slug !== page.slug
    const back = `“${page.title}” is back${elsewhere ? `, at /${slug}, since another page has its address` : ''}.`
    if (gateGone)
      notices.say(`${back} The gate it stood behind is gone: nobody has it until you say who may.`, {
        tone: 'attention',
        action: { label: 'Open it', run: () => navigateTo(`/desk/pages/${page.id}`) },
      })
    else notices.say(back, { tone: 'works' })
  })
async function removeForGood(page: { id: string; title: string }) {
  const yes = await asking.ask({
    question: `Delete the page “${page.title}” for good?`,
    detail: 'Its earlier versions go with it. This cannot be undone.',
    yes: 'Delete it',
    no: 'Keep it',
  })
  if (yes) await attempt(() => pages.removeForGood(page.id))
}
</script>

<template>
  <OwnRights v-if="!rights.readsPages" class="pages" />
  <div v-else class="pages">
    <header class="board-head">
      <h1>Pages</h1>
      <span class="acts">
        <VBtn v-if="pages.waiting.length && rights.may('publish')" variant="outlined" :disabled="publishing" @click="publishWaiting">
          {{
            publishing
              ? 'Publishing…'
              : `Publish ${counted(pages.waiting.length, 'page')} that ${pages.waiting.length === 1 ? 'waits' : 'wait'}`
          }}
        </VBtn>
        <NuxtLink v-if="rights.may('design')" to="/desk/signposts" class="plain">Signposts</NuxtLink>
        <NuxtLink v-if="rights.may('design')" to="/desk/looks" class="plain">Looks</NuxtLink>
        <VBtn v-if="isNew && leftWay && rights.owner" @click="leftWay = false">First steps</VBtn>
        <VBtn v-if="rights.may('write')" variant="outlined" @click="open">New page</VBtn>
      </span>
    </header>
    <VForm v-if="adding" class="new" @submit.prevent="form.submit" @keydown.esc="form.leave(() => (adding = false))">
      <VTextField v-focus v-bind="form.field('title')" label="Title" maxlength="200" />
      <VTextField
        v-bind="form.field('slug')"
        label="Address"
        prefix="/"
        maxlength="80"
        @keydown="ownSlug = true"
        @blur="form.fields.slug = slugOf(form.fields.slug)"
      />
      <VRadioGroup v-model="start" label="Begins with" class="starts tiles">
        <VRadio value="">
          <template #label><b>Nothing</b><span>An empty page</span></template>
        </VRadio>
        <VRadio v-for="(each, name) in STARTS" :key="name" :value="name">
          <template #label
            ><b>{{ each.words }}</b
            ><span>{{ each.hint }}</span></template
          >
        </VRadio>
      </VRadioGroup>
      <p v-if="form.problem.value" class="problem" role="alert">{{ form.problem.value }}</p>
      <div class="acts">
        <VBtn type="submit" variant="flat" :loading="form.busy.value">Make the page</VBtn>
        <VBtn @click="adding = false">Cancel</VBtn>
      </div>
    </VForm>
    <FirstHour v-if="showsWay" :publishing="publishing" @leave="leftWay = true" @live="goLive" />
    <VSkeletonLoader v-if="!pages.loaded" type="list-item@6" loading-text="Reading the pages…" />
    <ul v-else class="list">
      <li v-for="page in pages.items" :key="page.id">
        <NuxtLink :to="`/desk/pages/${page.id}`" class="row">
          <span class="name">{{ page.title }}</span>
          <code class="address">/{{ page.slug }}</code>
          <PageState :page="page" />
        </NuxtLink>
        <span class="row-acts">
          <a v-if="page.published" class="plain" :href="`/${page.slug}`" target="_blank" :aria-label="`View live: ${page.title}`"
            >View live</a
          >
          <VBtn v-if="page.slug && removes(page)" color="soft" :aria-label="`Remove ${page.title}`" @click="remove(page)"> Remove </VBtn>
        </span>
      </li>
    </ul>
    <h2 v-if="pages.loaded" class="list-head">On every page</h2>
    <ul v-if="pages.loaded" class="list">
      <li v-for="page in pages.edges" :key="page.id">
        <NuxtLink :to="`/desk/pages/${page.id}`" class="row">
          <span class="name">{{ page.title }}</span>
          <span class="what">{{ EDGE_WORDS[page.edge as Edge] }}</span>
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
      @go="remove(held.page, $event)"
    />
    <template v-if="pages.binned.length">
      <h2 class="list-head">In the bin, for {{ counted(session.binDays, 'day') }}</h2>
      <ul class="list">
        <li v-for="page in pages.binned" :key="page.id">
          <div class="row">
            <span class="name">{{ page.title }}</span>
            <code class="address">/{{ page.slug }}</code>
            <span class="what">deleted {{ shortDate(page.deleted) }}{{ page.live ? ', was live' : '' }}</span>
          </div>
          <span class="row-acts">
            <VBtn v-if="page.live ? removesLive : rights.may('write')" :aria-label="`Restore ${page.title}`" @click="restore(page)"
              >Restore</VBtn
            >
            <VBtn v-if="removesLive" color="soft" :aria-label="`Delete ${page.title} for good`" @click="removeForGood(page)">Delete</VBtn>
          </span>
        </li>
      </ul>
    </template>
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
}
.starts :deep(.v-selection-control-group) {
  grid-template-columns: repeat(auto-fill, minmax(172px, 1fr));
}
.starts b {
  font-weight: 600;
  font-size: 13.5px;
}
.starts span {
  color: var(--soft);
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
