import type { Ref } from 'vue'
import type { CatalogueItem } from '~~/core/catalogue/catalogue'
import { counted } from '~/composables/format'

/** Putting entries live, and with them the pages that show them, which can be made of the catalogue. */
export function useGoingLive(id: string, catalogue: Ref<CatalogueItem | undefined>) {
  const catalogues = useCatalogues()
  const entries = useEntries()
  const pages = usePages()
  const notices = useNotices()

  const publishing = ref(false)
  async function publish(ids?: string[]) {
    publishing.value = true
    await orSayWhy(async () => {
      const { live, lacking: left } = await catalogues.publish(id, ids)
      await entries.load()
      const [first] = left
      if (first) {
        notices.say(`${counted(left.length, 'entry is', 'entries are')} not live: “${first.title}” needs “${first.field}”.`, {
          tone: 'attention',
        })
      }
      if (live) notices.say(`${counted(live, 'entry is', 'entries are')} live.`, { tone: 'works' })
    })
    publishing.value = false
  }

  const made = ref<{ list: string }>()
  const makePages = () =>
    orSayWhy(async () => {
      made.value = await catalogues.makePages(id)
      notices.say(`A page lists them now, and each ${catalogue.value!.one} has one of its own. Look at them, then publish.`, {
        tone: 'works',
        action: { label: 'Open the list', run: () => navigateTo(`/desk/pages/${made.value!.list}`) },
      })
    })
  const listed = computed(() => pages.all.find(page => page.id === made.value?.list))
  /** What entries are laid out in, and the page that lists them, where they are to go live. */
  const waitingPages = computed(() => pages.waiting.filter(({ id: page, catalogue: of }) => of === id || page === made.value?.list))
  async function publishAll() {
    await publish()
    if (!waitingPages.value.length) return
    await orSayWhy(async () => {
      const { live, left } = await pages.publishSome(waitingPages.value)
      const list = live.find(({ id: page }) => page === made.value?.list)
      if (left.length) notices.say(`“${left[0]!.title}” is not live: something on it leads nowhere.`, { tone: 'attention' })
      else if (list)
        notices.say(`“${list.title}” is live.`, {
          tone: 'works',
          action: { label: 'View live', run: () => window.open(`/${list.slug}`, '_blank', 'noopener') },
        })
    })
  }

  return { publishing, publish, publishAll, makePages, listed, waitingPages }
}
