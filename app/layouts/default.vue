<script setup lang="ts">
import { NavigationFailureType, isNavigationFailure } from 'vue-router'
import { useBoardAddress } from '~/library/boardAddress'

const boards = useBoards()
const library = useLibrary()
// From the start: they are read with the library.
useSignposts()
const placer = usePlacer()
const editions = useEditions()
const { publish, viewLive } = usePublish()
useNews()
useHead({ style: [{ innerHTML: () => useLooks().faces, key: 'faces' }] })
const failure = ref('')

async function load() {
  failure.value = ''
  try {
    await Promise.all([
      useSession().load(),
      library.refresh(),
      usePages().load(),
      useCatalogues().load(),
      useGates().load(),
      useTimetable().load(),
      useReading().load(),
      useJobs().load(),
    ])
  } catch (error) {
    failure.value = wordsOf(error)
  }
}

const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement && (target.isContentEditable || /^(?:INPUT|TEXTAREA|SELECT)$/.test(target.tagName))

function onKey(event: KeyboardEvent) {
  const control = event.ctrlKey || event.metaKey
  if (control && event.key === 'Enter') {
    // In the Find field these keys show all that was found.
    if (event.target instanceof HTMLElement && event.target.closest('[data-own-keys]')) return
    if (event.shiftKey) viewLive()
    else void publish()
  } else if (event.altKey && event.key === '1') {
    boards.toLibrary()
  } else if (event.altKey && event.key === '2') {
    boards.front = 'work'
    if (boards.folded === 'work') boards.folded = 'none'
    placer.current?.focus()
  } else if (event.key === '?' && !isTyping(event.target)) {
    boards.keysShown = true
  } else {
    return
  }
  event.preventDefault()
}

/** A file let go beside every board must not make the browser leave the desk. */
function guard(event: DragEvent) {
  if (!event.defaultPrevented && event.dataTransfer?.types.includes('Files')) event.preventDefault()
}

onMounted(async () => {
  window.addEventListener('keydown', onKey, { capture: true })
  window.addEventListener('dragover', guard)
  window.addEventListener('drop', guard)
  await load()
  await useUploads().findLeftOvers()
})
onBeforeUnmount(() => {
  window.removeEventListener('keydown', onKey, { capture: true })
  window.removeEventListener('dragover', guard)
  window.removeEventListener('drop', guard)
})
// Counts and uses are as of now when the owner comes back to this window.
useEventListener(window, 'focus', () => void library.refresh().catch(() => undefined))
// New files are looked into; how far that is shows below the list.
watch(
  () => library.changes,
  () =>
    void useReading()
      .load()
      .catch(() => undefined),
)

const router = useRouter()
/** On a narrow screen what is opened comes to the front, and so does the library when one goes back to it. */
onBeforeUnmount(
  router.afterEach((to, from, failure) => {
    if (to.path === from.path && !isNavigationFailure(failure, NavigationFailureType.duplicated)) return
    if (/^\/desk\/(?:files|pages)\//.test(to.path)) boards.front = 'work'
    else if (from.path.startsWith('/desk/files/')) boards.front = 'library'
  }),
)
useBoardAddress()
</script>

<template>
  <div class="desk" :class="[`folded-${boards.folded}`, `front-${boards.front}`]" :style="{ '--library': `${boards.width}px` }">
    <a class="skip" href="#work">To the page</a>
    <TopStrip />
    <StandingWarnings />
    <p v-if="failure" class="offline" role="alert">{{ failure }} <VBtn @click="load">Try again</VBtn></p>
    <div class="boards">
      <VBtn v-if="boards.folded === 'library'" color="ink" class="unfold" @click="boards.folded = 'none'">Library</VBtn>
      <section v-else class="library-side" aria-label="Library">
        <LibraryBoard class="board-library" />
        <BoardDivider v-if="boards.folded === 'none'" />
      </section>
      <main v-show="boards.folded !== 'work'" id="work" class="work" tabindex="-1"><slot /></main>
      <VBtn v-if="boards.folded === 'work'" color="ink" class="unfold" @click="boards.folded = 'none'">Page</VBtn>
    </div>
    <!-- Above the trough, however high that stands. -->
    <div class="notice-place"><NoticeStack /></div>
    <LazyNextEditionDialog v-if="editions.open" :key="`${editions.open.file.id} ${editions.open.number}`" />
    <nav class="switch" aria-label="Boards">
      <VBtn color="ink" :aria-pressed="boards.front === 'library'" @click="boards.front = 'library'">Library</VBtn>
      <VBtn color="ink" :aria-pressed="boards.front === 'work'" @click="boards.front = 'work'">Page</VBtn>
    </nav>
    <TroughTray />
    <KeysDialog />
    <AskDialog />
  </div>
</template>

<style scoped>
.desk {
  display: flex;
  flex-direction: column;
  height: 100dvh;
  background: var(--grey);
}
.boards {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: var(--library) 7px minmax(0, 1fr);
}
.folded-library .boards {
  grid-template-columns: 34px minmax(0, 1fr);
}
.folded-work .boards {
  grid-template-columns: minmax(0, 1fr) 34px;
}
.library-side {
  display: contents;
}
.work {
  min-width: 0;
  min-height: 0;
  display: flex;
  flex-direction: column;
  container-type: inline-size;
  outline: none;
}
.unfold {
  justify-content: start;
  writing-mode: vertical-rl;
  border-radius: 0;
  background: #d3dcda;
  border: solid #a9b7b3;
  border-width: 0 1px;
  padding: 12px 0;
  text-align: left;
  font-weight: 600;
}
.unfold:hover {
  background: #c3cecb;
}
.offline {
  padding: 8px 14px;
  background: #f6e3d8;
}
.switch {
  display: none;
}
.notice-place {
  position: relative;
}
.skip {
  position: absolute;
  left: -999px;
}
.skip:focus {
  left: 8px;
  top: 8px;
  z-index: 4000;
  background: #fff;
  padding: 8px;
}
@media (max-width: 799px) {
  .boards,
  .folded-library .boards,
  .folded-work .boards {
    grid-template-columns: minmax(0, 1fr);
  }
  .boards .divider,
  .unfold {
    display: none;
  }
  .front-work .board-library,
  .front-library .work {
    display: none;
  }
  .switch {
    display: grid;
    grid-template-columns: 1fr 1fr;
    border-top: 1px solid #a9b7b3;
  }
  .switch .v-btn {
    height: 40px;
    background: #dce3e1;
  }
  .switch .v-btn[aria-pressed='true'] {
    background: #fff;
    font-weight: 600;
    box-shadow: inset 0 3px var(--water);
  }
}
</style>
