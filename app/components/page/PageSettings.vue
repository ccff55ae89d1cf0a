<script setup lang="ts">
import type { Use } from '~~/core/files/fileItem'
import type { Target } from '~~/core/page/schema'

/** What holds of the open page as a whole; it stands in the margin while nothing on the page is selected. */
const emit = defineEmits<{ restore: [version: number] }>()
const rights = useRights()
const page = usePage()
const pages = usePages()
const notices = useNotices()
const asking = useAsking()

const current = computed(() => page.current!)
const { problem, attempt } = useAttempt()
const showsVersions = ref(false)
const showsHtml = ref(false)
const { versions, load: loadVersions } = usePageVersions()
const EDGE_HINTS = {
  head: 'This stands at the top of every page. Buttons are the items of the menu, beside the name of the site: they lead to files, pages or addresses, in the order they have here. A picture stands in the place of the name. Anything else stands below them.',
  foot: 'This stands at the end of every page: opening hours, an address, links, files.',
  entry:
    'Each entry of the catalogue is laid out like this. Type / to put one of its fields in; lines, buttons and pictures whose field is empty are left out.',
}
const VERSION_HEADERS = [
  { title: 'Put live', key: 'published' },
  { title: 'Act', key: 'act', sortable: false, align: 'end' },
] as const
const KIND_WORDS = { added: 'New', removed: 'Gone', changed: 'Changed', moved: 'Moved' }

watch([showsVersions, () => page.live], () => showsVersions.value && attempt(() => loadVersions(current.value.id)))

async function duplicate() {
  await attempt(async () => {
    await page.save()
    await navigateTo(`/desk/pages/${(await pages.duplicate(current.value.id)).id}`)
  })
}

async function unpublish() {
  const detail = 'The draft and its earlier versions stay here.'
  const yes = await asking.ask({
    question: `Take “${current.value.title}” from visitors?`,
    detail,
    yes: 'Take it offline',
    no: 'Leave it live',
  })
  if (yes) await takeOffline()
}
/** places on other pages that hold that back */
const held = shallowRef<Use[]>([])
const takeOffline = (despite = false) =>
  attempt(async () => {
    held.value = await page.unpublish(despite)
    if (!held.value.length)
      notices.say(
        current.value.edge ? 'Visitors no longer see what was placed there.' : `Visitors no longer find /${current.value.slug}.`,
        {},
      )
  })

/** where other pages lead here */
const uses = shallowRef<Use[]>([])
const target = computed<Target>(() => ({ kind: 'page', id: current.value.id }))
watch(
  [() => page.current?.id, () => useLibrary().changes],
  ([id], _before, onCleanup) => {
    let late = false
    onCleanup(() => (late = true))
    return (
      id &&
      !page.current?.edge &&
      attempt(async () => {
        const found = (await useTargets().places({ kind: 'page', id })).uses
        // Another page may have been opened meanwhile.
        if (!late) uses.value = found.filter(use => use.pageId !== id)
      })
    )
  },
  { immediate: true },
)
const replacing = ref(false)
</script>

<template>
  <section class="settings" aria-label="Settings of this page">
    <p v-if="current.edge" class="hint">{{ EDGE_HINTS[current.edge] }}</p>
    <PageFields
      v-if="(!current.edge || current.edge === 'entry') && rights.may('write') && (!current.published || rights.may('publish'))"
    />
    <p v-else-if="!current.edge" class="hint">
      Address, menu and words for search engines are for those who may write pages and put them live.
    </p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>

    <div class="waits">
      <h2>
        {{
          page.live === null
            ? 'Visitors do not see this page'
            : page.changes.length
              ? 'Visitors do not see yet'
              : 'Visitors see it as it stands'
        }}
      </h2>
      <ul v-if="page.changes.length">
        <li v-for="(change, index) in page.changes.slice(0, 12)" :key="index">
          <b>{{ KIND_WORDS[change.kind] }}</b> {{ change.what }}
        </li>
        <li v-if="page.changes.length > 12">and {{ page.changes.length - 12 }} more</li>
      </ul>
    </div>

    <FoldSection
      v-if="uses.length"
      :heading="`${counted(uses.length, 'place')} on other pages ${uses.length === 1 ? 'leads' : 'lead'} here`"
    >
      <PlaceList :uses="uses" />
      <VBtn v-if="rights.mends" @click="replacing = true">Replace everywhere…</VBtn>
    </FoldSection>

    <FoldSection v-model:open="showsVersions" heading="Versions that were live">
      <p v-if="versions && !versions.length" class="hint">It was never live.</p>
      <VDataTable v-if="versions?.length" :headers="VERSION_HEADERS" :items="versions" item-value="number" class="versions">
        <template #[`item.published`]="{ item }">
          <b>{{ longDate(item.published) }}<template v-if="item.live">, live now</template></b>
          <span v-if="item.by" class="what">by {{ item.by }}</span>
          <span class="what"
            >{{
              item.changes
                .slice(0, 3)
                .map(change => `${KIND_WORDS[change.kind]}: ${change.what}`)
                .join('; ') || 'the same again'
            }}<template v-if="item.changes.length > 3">; and {{ item.changes.length - 3 }} more</template></span
          >
        </template>
        <template #[`header.act`]><span class="tr-spoken">Act</span></template>
        <template #[`item.act`]="{ item }">
          <VBtn
            v-if="!item.live && rights.may('write')"
            :aria-label="`Bring back the version of ${longDate(item.published)}`"
            @click="emit('restore', item.number)"
          >
            Bring back
          </VBtn>
        </template>
      </VDataTable>
    </FoldSection>

    <div class="acts">
      <VBtn v-if="!current.edge && rights.may('write')" @click="duplicate">Duplicate page</VBtn>
      <VBtn v-if="!current.edge" @click="showsHtml = true">Show HTML…</VBtn>
      <VBtn v-if="current.published && current.slug && rights.may('publish')" @click="unpublish">Take offline</VBtn>
    </div>
    <ReplaceDialog v-if="replacing" :from="{ target, title: current.title }" @close="replacing = false" />
    <LedToDialog v-if="held.length" :page="current" :uses="held" act="Take it offline" @close="held = []" @go="takeOffline" />
    <HtmlDialog v-if="showsHtml" @close="showsHtml = false" />
  </section>
</template>

<style scoped>
.settings {
  display: grid;
  gap: 12px;
  padding: 12px 12px 30px 18px;
  align-content: start;
}
h2 {
  font-size: 13px;
  font-weight: 600;
}
.waits {
  border-top: 1px solid var(--line);
  padding-top: 10px;
}
.waits ul {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
  display: grid;
  gap: 3px;
  font-size: 12.5px;
  line-height: 1.4;
}
.waits li {
  overflow-wrap: anywhere;
}
.versions {
  max-height: 320px;
  font-size: 12.5px;
}
.versions :deep(:is(td, th)) {
  padding: 4px 8px !important;
  vertical-align: top;
}
.what {
  display: block;
  color: var(--soft);
  font-size: 12.5px;
  line-height: 1.4;
  overflow-wrap: anywhere;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  border-top: 1px solid var(--line);
  padding-top: 8px;
  margin-left: -8px;
}
</style>
