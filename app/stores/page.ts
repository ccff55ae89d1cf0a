import { z } from 'zod'
import { defineStore } from 'pinia'
import { createEventHook } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { fileItemSchema, type Use } from '~~/core/files/fileItem'
import { changesBetween, type PageChange, type PageText } from '~~/core/page/changes'
import { pageItemSchema, pageDetailsSchema, type PageDetails, type PageItem, type PageSettings } from '~~/core/page/pageItem'
import type { PageDocument } from '~~/core/page/schema'
import { placementsOf } from '~~/core/page/targets'
import { createQueue } from '~~/core/queue'
import { ApiProblem, ask, heldBy, wordsOf } from '~/composables/api'
import type { Replaced } from '~/editor/past'
import { useLibrary } from './library'
import { useNotices } from './notices'
import { usePages } from './pages'

const openedSchema = pageDetailsSchema.extend({ files: z.array(fileItemSchema), downloads: z.record(z.string(), z.number()) })
const savedSchema = z.object({ revision: z.number(), waiting: z.boolean() })

export type SaveState = 'saved' | 'changed' | 'saving' | 'failed' | 'conflict'

const targetsOf = (document: PageDocument) =>
  placementsOf(document)
    .map(({ id, targets, behind }) => JSON.stringify([id, targets, behind]))
    .join()

/** What was changed from elsewhere on the desk: one page, or any; by a replacement where one did so. */
export interface Anew {
  id?: string
  replaced?: Replaced
}

const SAVE_AFTER = 500
const RETRY_AFTER = 4000

/** The page that is open on the page board. */
export const usePage = defineStore('page', () => {
  const current = ref<Omit<PageDetails, 'draft' | 'live'>>()
  const draft = shallowRef<PageDocument>()
  /** what visitors read now */
  const live = shallowRef<PageText | null>(null)
  const downloads = ref<Record<string, number>>({})
  const state = ref<SaveState>('saved')
  const problem = ref('')
  /** what visitors do not see yet; compared anew when the draft has been saved */
  const changes = shallowRef<PageChange[]>([])
  let timer: ReturnType<typeof setTimeout> | undefined
  let saving: Promise<void> | undefined
  /** something else on the desk is changing the page */
  let elsewhere: Promise<unknown> | undefined
  /** where the saved draft leads, so that the library is asked again only when that changes */
  let savedTargets = ''

  async function open(id: string) {
    const { files, downloads: counts, draft: document, live: version, ...page } = await ask(openedSchema, `/pages/${id}`)
    useLibrary().learn(files)
    current.value = page
    draft.value = document
    live.value = version
    savedTargets = targetsOf(document)
    downloads.value = counts
    state.value = 'saved'
    problem.value = ''
  }

  function close() {
    clearTimeout(timer)
    current.value = undefined
    draft.value = undefined
  }

  function schedule(after: number) {
    clearTimeout(timer)
    timer = setTimeout(() => void save(), after)
  }

  function touch() {
    if (!current.value || state.value === 'conflict') return
    current.value.waiting = true
    state.value = 'changed'
    schedule(SAVE_AFTER)
  }

  function change(document: PageDocument) {
    draft.value = document
    touch()
  }

  function rename(title: string) {
    if (!current.value) return
    current.value.title = title
    touch()
  }

  function refreshUses(saved: PageDocument) {
    const targets = targetsOf(saved)
    if (targets === savedTargets) return
    savedTargets = targets
    // The page is saved whether or not the library can be shown anew.
    useLibrary().refresh().catch(useNotices().refused)
  }

  async function write() {
    const page = current.value!
    const sent = draft.value!
    state.value = 'saving'
    try {
      const { revision, waiting } = await ask(savedSchema, `/pages/${page.id}/draft`, 'PUT', {
        title: page.title.trim() || 'Untitled',
        draft: sent,
        revision: page.revision,
      })
      page.revision = revision
      refreshUses(sent)
      if (state.value === 'saving') {
        state.value = 'saved'
        page.waiting = waiting
      }
    } catch (error) {
      problem.value = wordsOf(error)
      const conflict = error instanceof ApiProblem && error.status === 409
      state.value = conflict ? 'conflict' : 'failed'
      // Without a connection, or with a server that is just restarting, trying again is all it takes.
      if (!conflict) schedule(RETRY_AFTER)
    }
  }

  /** Saves what has changed; resolves when nothing is left to save or it cannot be saved now. */
  async function save(): Promise<void> {
    clearTimeout(timer)
    while (saving || elsewhere) await (saving ?? elsewhere)
    if (!current.value || (state.value !== 'changed' && state.value !== 'failed')) return
    saving = write().finally(() => (saving = undefined))
    await saving
    if ((state.value as SaveState) === 'changed') await save()
  }

  /** Saves what has changed. @throws ApiProblem where it cannot be saved now */
  async function settle(): Promise<void> {
    await save()
    if (current.value && state.value !== 'saved') throw new ApiProblem(0, 'The page is not saved yet.', problem.value)
  }

  const anew = createEventHook<Anew>()
  const oneAfterAnother = createQueue()

  /** While something else on the desk changes pages the open one is not saved, and is read anew then. */
  async function whileChanged(act: () => Promise<Anew>) {
    const done = act().then(anew.trigger)
    elsewhere = done.finally(() => (elsewhere = undefined)).catch(() => undefined)
    await done
  }

  /** What changes any pages from elsewhere on the desk; the open one is saved before. */
  const changedBy = (act: () => Promise<Replaced | undefined>) =>
    oneAfterAnother(async () => {
      await settle()
      await whileChanged(async () => ({ replaced: await act() }))
    })

  /** What changes one page that need not be open, and may be opened meanwhile. */
  const changedAt = (id: string, act: () => Promise<void>) =>
    oneAfterAnother(async () => {
      if (current.value?.id === id) await save()
      await whileChanged(async () => (await act(), { id }))
    })

  /** After a conflict: puts this version over the other one. */
  async function keepMine() {
    const page = current.value!
    page.revision = (await ask(pageDetailsSchema, `/pages/${page.id}`)).revision
    state.value = 'changed'
    await save()
  }

  /** Publishes the draft as it stands; throws where some buttons lead nowhere and `despite` is not set. */
  async function publish(despite = false): Promise<PageItem> {
    await settle()
    const document = draft.value!
    const page = await ask(pageItemSchema, `/pages/${current.value!.id}/publish`, 'POST', { despite })
    Object.assign(current.value!, page)
    live.value = { title: page.title, document }
    await usePages().load()
    return page
  }

  function take({ draft: _, live: version, revision: __, ...known }: PageDetails) {
    Object.assign(current.value!, known)
    live.value = version
    return usePages().load()
  }

  /** Changes what holds of the page at once, draft and live. */
  async function setUp(settings: PageSettings) {
    await take(await ask(pageDetailsSchema, `/pages/${current.value!.id}/settings`, 'PATCH', settings))
  }

  /** Takes the page from visitors; its draft stays. Gives the places on other pages that lead to it where they hold that back. */
  async function unpublish(despite = false): Promise<Use[]> {
    const places = await heldBy(async () =>
      take(await ask(pageDetailsSchema, `/pages/${current.value!.id}/unpublish${despite ? '?despite=yes' : ''}`, 'POST')),
    )
    if (!places.length) useLibrary().refresh().catch(useNotices().refused)
    return places
  }

  watch([state, live], () => {
    if (state.value !== 'saved' || !current.value || !draft.value) return
    changes.value = changesBetween(live.value ?? undefined, { title: current.value.title, document: draft.value })
  })

  /** Where visitors see what is open: an edge on the home page, what entries are laid out in on the page of the first of them. */
  const liveHref = computed(() => {
    if (!current.value?.published) return undefined
    const { edge, slug, catalogue } = current.value
    if (!catalogue) return edge ? '/' : `/${slug}`
    const entry = useSamples()
      .byCatalogue.get(catalogue)
      ?.find(({ live }) => live)
    return entry && `/${useCatalogues().byId.get(catalogue)?.slug}/${entry.slug}`
  })

  return {
    current,
    draft,
    live,
    onAnew: anew.on,
    changes,
    downloads,
    state,
    problem,
    liveHref,
    open,
    close,
    change,
    rename,
    save,
    settle,
    changedBy,
    changedAt,
    keepMine,
    publish,
    setUp,
    unpublish,
  }
})
