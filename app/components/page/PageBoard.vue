<script setup lang="ts">
import type { ComponentPublicInstance } from 'vue'
import { EditorContent, useEditor, type Editor } from '@tiptap/vue-3'
import { NodeSelection } from '@tiptap/pm/state'
import { contentCss } from '~~/core/page/pageCss'
import { isPlainlyAddress, recognise } from '~~/core/page/recognise'
import { menuTitle } from '~~/core/page/edges'
import type { PageItem } from '~~/core/page/pageItem'
import { titleFromFileName } from '~~/core/files/fileName'
import { familyOf } from '~~/core/files/mediaType'
import type { FileItem } from '~~/core/files/fileItem'
import { MOST_IN_ROW, type ButtonAttrs, type CardAttrs, type PictureAttrs, type ShelfAttrs, type Target } from '~~/core/page/schema'
import {
  changePlacement,
  documentOf,
  duplicateBlock,
  focusEnd,
  focusStart,
  fillRow,
  givePlacement,
  insertButton,
  insertPicture,
  insertSeveral,
  insertShelf,
  linkWords,
  pasteLink,
  pictureToButton,
  placeAgain,
  removePlacement,
  selectPlacement,
} from '~/editor/commands'
import { addableFor, type Addable } from '~/editor/add'
import {
  dissolvePart,
  moveBlock,
  moveBlockTo,
  partsAround,
  removePart,
  selectPart,
  setColumnCount,
  setPart,
  type Part,
} from '~/editor/parts'
import { pageExtensions } from '~/editor/extensions'
import type { TableAct } from '~/editor/table'
import { spotAt, type Spot } from '~/editor/spot'
import PlacementNote from './PlacementNote.vue'
import PictureNote from './PictureNote.vue'
import ShelfNote from './ShelfNote.vue'

const props = defineProps<{ id: string; /** the placement to begin at */ at?: string }>()

const page = usePage()
const library = useLibrary()
const uploads = useUploads()
const placer = usePlacer()
const looks = useLooks()
const notices = useNotices()
const asking = useAsking()

const sheet = ref<HTMLElement>()
const scroll = ref<HTMLElement>()
const note = ref<InstanceType<typeof PlacementNote | typeof ShelfNote | typeof PictureNote>>()
const spot = ref<Spot>()
const failure = ref('')
/** an open finder, and what it is for; pixels from the top left of the sheet */
const finder = ref<{ top: number; left: number; purpose: 'place' | 'link' }>()
/** what the caret or the selected block lies in, the inmost first */
const parts = shallowRef<Part[]>([])
const noteBox = ref<HTMLElement>()
const settings = ref<ComponentPublicInstance>()
/** the selected button, link or shelf, with its height on the sheet */
const selected = ref<
  { top: number } & (
    | { kind: 'button' | 'link'; attrs: ButtonAttrs }
    | { kind: 'card'; attrs: CardAttrs }
    | { kind: 'shelf'; attrs: ShelfAttrs }
    | { kind: 'picture'; attrs: PictureAttrs }
  )
>()

const targetOf = (file: FileItem) => ({ kind: 'file' as const, id: file.id })

const editor = useEditor({
  extensions: pageExtensions,
  // Not before the draft is here: what is written would be lost when that arrives.
  editable: false,
  editorProps: {
    attributes: { 'class': 'tr-page', 'role': 'textbox', 'aria-multiline': 'true', 'aria-label': 'The page' },
    handleTextInput(view, from, _to, text) {
      if (text !== '/') return false
      const { $from } = view.state.selection
      const before = $from.parent.textBetween(0, $from.parentOffset, undefined, ' ')
      // A slash inside a word, as in "and/or", is a slash.
      if (before && !/\s$/.test(before)) return false
      openFinder('place', from)
      return true
    },
    handleKeyDown(view, event) {
      const onButton = view.state.selection instanceof NodeSelection
      if (onButton && event.key === 'Enter' && !event.ctrlKey && !event.metaKey) {
        note.value?.focus()
        return true
      }
      if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown'))
        return moveBlock(editor.value!, event.key === 'ArrowUp' ? -1 : 1)
      if ((event.ctrlKey || event.metaKey) && event.key === 'd' && onButton && selected.value) {
        duplicateBlock(editor.value!, selected.value.attrs.placement)
        event.preventDefault()
        return true
      }
      return false
    },
    handleDrop: (view, event, _slice, moved) => !moved && drop(view, event),
    handlePaste: (_view, event) => {
      const files = [...(event.clipboardData?.files ?? [])]
      if (!files.length && pasteAddress(event.clipboardData?.getData('text/plain') ?? '')) return true
      if (!files.length || event.clipboardData?.types.includes('text/html')) return false
      if (files.length === 1 && arePictures([], files)) showPicture(files[0]!, editor.value!.state.selection.to)
      else placeUploads(files)
      return true
    },
  },
  onUpdate: ({ editor: current }) => page.change(documentOf(current as Editor)),
  // Not where only the focus changes: the margin would move away from under the mouse that just went to it.
  onTransaction: ({ editor: current, transaction }) => {
    if (!transaction.docChanged && !transaction.selectionSet) return
    // Opening a page, or an upload that arrives, is nothing the owner did here.
    if (transaction.getMeta('addToHistory') !== false) settingsCalled.value = false
    follow(current as Editor)
  },
})

/**
 * The margin shows the page's settings, whatever the caret is in, until it moves. So it does at first: the page is seen from its top, and
 * what is said of its end would be hard to place.
 */
const settingsCalled = ref(true)
const hasNote = computed(() => !settingsCalled.value && (!!selected.value || parts.value.length > 0))

/** They stand at the top of the margin, or below the page where there is no room beside it. */
async function callSettings() {
  previewing.value = false
  settingsCalled.value = true
  await nextTick()
  settings.value?.$el.scrollIntoView({ block: 'nearest' })
}

/** Keeps the margin with what is selected. */
function follow(current: Editor) {
  const { selection } = current.state
  const link = current.isActive('downloadLink') ? current.getAttributes('downloadLink') : undefined
  const block = selection instanceof NodeSelection ? selection.node : undefined
  parts.value = partsAround(current.state)
  if (!block?.attrs.placement && !link && !parts.value.length) {
    selected.value = undefined
    return
  }
  const top = Math.round(current.view.coordsAtPos(selection.from).top - (sheet.value?.getBoundingClientRect().top ?? 0))
  partsTop.value = top
  if (!block?.attrs.placement && !link) {
    selected.value = undefined
    return
  }
  if (block?.type.name === 'shelf') selected.value = { kind: 'shelf', attrs: block.attrs as ShelfAttrs, top }
  else if (block?.type.name === 'picture') selected.value = { kind: 'picture', attrs: block.attrs as PictureAttrs, top }
  else if (block?.type.name === 'fileCard') selected.value = { kind: 'card', attrs: block.attrs as CardAttrs, top }
  else
    selected.value = block?.attrs.placement
      ? { kind: 'button', attrs: block.attrs as ButtonAttrs, top }
      : { kind: 'link', attrs: link as ButtonAttrs, top }
}

/** The note stands at its button's height, moved only as far as it takes to be seen whole. */
const noteTop = ref(0)
const partsTop = ref(0)
watch(
  () => [selected.value?.attrs.placement, parts.value.length, selected.value?.top ?? partsTop.value],
  async () => {
    await nextTick()
    const [area, element] = [scroll.value, noteBox.value]
    if (!area || !element) return
    const lowest = area.scrollTop + area.clientHeight - element.offsetHeight - 24
    noteTop.value = Math.max(0, Math.min((selected.value?.top ?? partsTop.value) - 12, Math.max(lowest, area.scrollTop)))
  },
  { immediate: true },
)

function openFinder(purpose: 'place' | 'link', position = editor.value!.state.selection.to) {
  const box = sheet.value!.getBoundingClientRect()
  const caret = editor.value!.view.coordsAtPos(position)
  finder.value = { purpose, top: caret.bottom - box.top + 4, left: Math.max(8, Math.min(caret.left - box.left, box.width - 356)) }
}

/** The view is focused itself: TipTap's command waits for a frame, in which the next key would be lost. */
function closeFinder() {
  finder.value = undefined
  editor.value?.view.focus()
}

function lead(target: Target, title: string) {
  const purpose = finder.value?.purpose
  finder.value = undefined
  const { from, to } = editor.value!.state.selection
  if (purpose === 'link') linkWords(editor.value!, target, from, to)
  else insertButton(editor.value!, target, title)
  editor.value!.view.focus()
}
const choose = (file: FileItem) => lead(targetOf(file), file.title)

/** An address that is pasted is where the selected button leads; else a link on the selected words, or on what it leads to is called. */
function pasteAddress(text: string): boolean {
  const current = editor.value!
  if (/\s/.test(text.trim()) || !isPlainlyAddress(text) || !recognise(text, [window.location.host])) return false
  const button = selected.value?.kind === 'button' || selected.value?.kind === 'card' ? selected.value.attrs.placement : undefined
  void ledBy(text)
    .then(led => {
      if (button && led) changePlacement(current, button, { target: led.target })
      else pasteLink(current, led, text.trim())
      if (led?.target.kind === 'file' || led?.target.kind === 'page')
        notices.say(`That is “${led.title}” of this site: the link follows it wherever it moves.`, {})
    })
    .catch((error: unknown) => notices.say(wordsOf(error), { tone: 'attention' }))
  return true
}

function add(part: Addable) {
  finder.value = undefined
  part.add(editor.value!)
  editor.value!.view.focus()
}

function actOnTable(act: TableAct) {
  editor.value!.commands[act]()
  editor.value!.view.focus()
}

function movePart(part: Part, direction: -1 | 1) {
  selectPart(editor.value!, part)
  moveBlock(editor.value!, direction)
}

async function chooseFromComputer() {
  const purpose = finder.value?.purpose
  finder.value = undefined
  const { from, to } = editor.value!.state.selection
  const files = await chooseFiles({ multiple: purpose !== 'link' })
  if (purpose === 'link') linkUpload(files, from, to)
  else placeUploads(files)
  editor.value!.view.focus()
}

function place(file: FileItem, position?: number) {
  insertButton(editor.value!, targetOf(file), file.title, position)
  // With the mouse on another board the page has to say where the button went.
  editor.value!.view.focus()
}

/** several files that were dropped at once, until it is known how they should stand */
const arranging = shallowRef<{ ours: FileItem[]; files: File[]; position: number }>()
const inRow = (position: number) => editor.value!.state.doc.resolve(position).parent.type.name === 'buttonRow'

async function arrange(way: Arrangement) {
  const { ours, files, position } = arranging.value!
  arranging.value = undefined
  const current = editor.value!
  try {
    if (way === 'bundle') place(await bundleOf(ours, `Files of “${page.current!.title}”`), position)
    else if (way === 'shelf') insertShelf(current, { kind: 'files', ids: ours.map(file => file.id) }, position)
    else {
      const placed = insertSeveral(
        current,
        [
          ...ours.map(file => ({ target: targetOf(file), label: file.title })),
          ...files.map(file => ({ target: null, label: titleFromFileName(file.name) })),
        ],
        way,
        position,
      )
      files.forEach((file, index) => sendFor(placed[ours.length + index]!, file))
    }
  } catch (error) {
    notices.say(wordsOf(error), { tone: 'attention' })
  }
  current.view.focus()
}

/** Pages of the menu become items that can be moved, and stay before what is placed already. */
function placePages(pages: PageItem[]) {
  insertSeveral(
    editor.value!,
    pages.map(each => ({ target: { kind: 'page', id: each.id }, label: menuTitle(each) })),
    'row',
    0,
  )
  editor.value!.view.focus()
}

/** The same button with the next file; the keyboard is on it, ready for one more. */
function again(target: Target, title: string) {
  placeAgain(editor.value!, selected.value!.attrs.placement, target, title)
  editor.value!.view.focus()
}

/** the row that a folder is chosen for */
const filling = shallowRef<Part>()
async function fill(folder: string) {
  const row = filling.value!
  filling.value = undefined
  try {
    const { files } = await filesOnShelf(shelfOfFolder(folder))
    const placed = fillRow(
      editor.value!,
      row,
      files.map(file => ({ target: targetOf(file), title: file.title })),
    )
    if (placed < files.length)
      notices.say(
        placed
          ? `The first ${counted(placed, 'file')} of ${files.length} found room: a row holds ${MOST_IN_ROW} buttons.`
          : `This row is full: it holds ${MOST_IN_ROW} buttons.`,
        { tone: 'attention' },
      )
    else if (!files.length) notices.say('That folder holds no file.', { tone: 'attention' })
  } catch (error) {
    notices.say(wordsOf(error), { tone: 'attention' })
  }
  editor.value!.view.focus()
}

/** Sends a file of the computer; its placement gets it when it has arrived, wherever it is by then. */
function sendFor(placement: string, file: File) {
  const { id } = props
  uploads.add([{ file, path: file.name }], { placements: [placement], done: item => placer.give(id, placement, targetOf(item)) })
}

/** A button for each file at once; each gets its file when that has arrived. */
function placeUploads(files: File[], position?: number) {
  for (const [index, file] of files.entries()) {
    const { placement } = insertButton(
      editor.value!,
      null,
      titleFromFileName(file.name),
      position === undefined ? undefined : position + index,
    )
    sendFor(placement, file)
  }
  editor.value!.view.focus()
}

/** The words become a link at once, which gets its file when that has arrived. */
function linkUpload([file]: File[], from: number, to: number) {
  if (file) sendFor(linkWords(editor.value!, null, from, to), file)
}

function drop(view: Editor['view'], event: DragEvent): boolean {
  spot.value = undefined
  if (moved.value !== undefined) {
    event.preventDefault()
    const to = spotAt(view, event.clientX, event.clientY, { between: true })
    if (to.kind === 'between') moveBlockTo(editor.value!, moved.value, to.position)
    moved.value = undefined
    view.focus()
    return true
  }
  if (!carriesFiles(event, { ours: true })) return false
  event.preventDefault()
  const files = [...(event.dataTransfer?.files ?? [])]
  const things = droppedThings(event)
  const ours = (things?.files ?? []).map(id => library.known.get(id)).filter(file => file !== undefined)
  const at = spotAt(view, event.clientX, event.clientY)
  if (at.kind === 'button') {
    const [file] = ours
    if (file) retarget(at.placement, file)
    else if (files[0] && !asNext(at.placement, files[0])) sendFor(at.placement, files[0])
    return true
  }
  if (at.kind === 'words') {
    if (ours[0]) linkWords(editor.value!, targetOf(ours[0]), at.from, at.to)
    else linkUpload(files, at.from, at.to)
    return true
  }
  const listed = things?.folders ?? []
  listed.forEach((id, index) => insertShelf(editor.value!, shelfOfFolder(id), at.position + index))
  const position = at.position + listed.length
  if (ours.length + files.length > 1 && !inRow(position)) {
    arranging.value = { ours, files, position }
    return true
  }
  if (!inRow(position) && arePictures(ours, files) && ours.length + files.length) {
    showPicture(ours[0] ?? files[0]!, position)
    return true
  }
  ours.forEach((file, index) => place(file, position + index))
  placeUploads(files, position + ours.length)
  view.focus()
  return true
}

/** A picture that is dropped is shown; who wanted a button for it says so. */
function showPicture(picture: FileItem | File, position: number) {
  const current = editor.value!
  const label = picture instanceof File ? titleFromFileName(picture.name) : picture.title
  const placement = insertPicture(current, picture instanceof File ? null : picture.id, position)
  if (picture instanceof File) sendFor(placement, picture)
  current.view.focus()
  notices.say('Placed as a picture.', { action: { label: 'As a button instead', run: () => pictureToButton(current, placement, label) } })
}
const arePictures = (ours: FileItem[], files: File[]) =>
  ours.every(file => file.family === 'picture') && files.every(file => familyOf(file.type) === 'picture')

/** where the block that is dragged by its handle stands */
const moved = ref<number>()
function selectBlock(position: number) {
  const { state, view } = editor.value!
  view.dispatch(state.tr.setSelection(NodeSelection.create(state.doc, position)))
  view.focus()
}

/** A file dropped on a button is what it leads to from then on. */
function retarget(placement: string, file: FileItem) {
  changePlacement(editor.value!, placement, { target: targetOf(file) })
  editor.value!.view.focus()
  notices.say(`That button leads to “${file.title}” now.`, {
    action: { label: 'Undo', run: () => void editor.value?.chain().undo().run() },
  })
}

const { followed, asNext } = useButtonDrop(() => editor.value, retarget)
/** what dropping on a button would do */
const dropWords = ref('')
function onDragOver(event: DragEvent) {
  const isMove = moved.value !== undefined
  if (!editor.value || !(isMove || carriesFiles(event, { ours: true }))) return
  event.preventDefault()
  event.dataTransfer!.dropEffect = isMove ? 'move' : 'copy'
  const at = spotAt(editor.value.view, event.clientX, event.clientY, { between: isMove })
  spot.value = at
  const old = at.kind === 'button' && !event.dataTransfer?.types.includes(LIBRARY_DRAG) ? followed(at.placement) : undefined
  dropWords.value = at.kind !== 'button' ? 'Goes here' : old ? `The next edition of “${old.title}”` : 'This button leads there instead'
}

/** The margin of the sheet takes drops too: people aim beside the text. */
function onDrop(event: DragEvent) {
  if (event.defaultPrevented || !editor.value) return
  drop(editor.value.view, event)
}

async function retargetFromComputer() {
  const { placement } = selected.value!.attrs
  const [file] = await chooseFiles({ multiple: false })
  if (file) sendFor(placement, file)
}

/** A click below the last block writes on, also where that block is a button. */
function writeOn(event: MouseEvent) {
  const view = editor.value!.view
  // A click on what is selected already changes nothing in the editor, and asks for its settings nevertheless.
  if (view.dom.contains(event.target as globalThis.Node)) settingsCalled.value = false
  if (event.target !== sheet.value && event.target !== view.dom) return
  const last = view.dom.lastElementChild?.getBoundingClientRect()
  if (!last || event.clientY < last.bottom) return
  const { doc } = view.state
  if (!doc.lastChild?.isTextblock) editor.value!.commands.insertContentAt(doc.content.size, { type: 'paragraph' })
  focusEnd(editor.value!)
}

async function load(at = props.at) {
  failure.value = ''
  try {
    await Promise.all([page.open(props.id), looks.load()])
    if (editor.value) editor.value.storage.edge.edge = page.current!.edge
    // Opening a page is nothing to undo.
    editor.value?.chain().setMeta('addToHistory', false).setContent(page.draft!, { emitUpdate: false }).run()
    document.title = `${page.current!.title} · Trough`
    if (!editor.value) return
    editor.value.setEditable(true, false)
    if (at && selectPlacement(editor.value, at)) return
    focusEnd(editor.value)
    settingsCalled.value = true
  } catch (error) {
    failure.value = wordsOf(error)
  }
}

watch(
  () => page.anew,
  () => load(selected.value?.attrs.placement),
)
watch(
  () => props.at,
  at => at && editor.value && selectPlacement(editor.value, at),
)

/** Puts a version that was live into the draft; undo takes it out again. */
async function bringBack(number: number) {
  try {
    const { title, document } = await readVersion(props.id, number)
    page.rename(title)
    editor.value!.chain().setContent(document, { emitUpdate: true }).setTextSelection(0).run()
    notices.say('That version is in the draft now. Publish puts it live.', {
      action: { label: 'Undo', run: () => void editor.value?.chain().undo().run() },
    })
  } catch (error) {
    notices.say(wordsOf(error), { tone: 'attention' })
  }
}

async function keepMine() {
  try {
    await page.keepMine()
  } catch (error) {
    notices.say(wordsOf(error), { tone: 'attention' })
  }
}

const previewing = ref(false)
/** What was written last is on the preview, too. */
async function preview() {
  await page.save()
  previewing.value = !previewing.value
  if (previewing.value) return
  // What is not shown yet takes no focus.
  await nextTick()
  editor.value?.view.focus()
}

const saveWords = computed(
  () =>
    ({
      saved: 'Saved',
      changed: 'Saving…',
      saving: 'Saving…',
      failed: `Not saved yet. ${page.problem}`,
      conflict: 'Not saved',
    })[page.state],
)

function onKey(event: KeyboardEvent) {
  if (!(event.ctrlKey || event.metaKey)) return
  const key = event.key.toLowerCase()
  if (key === 'u' && !event.shiftKey) void placer.current?.placeFromComputer()
  else if (key === 'k' && event.shiftKey && !editor.value?.state.selection.empty) openFinder('link')
  else return
  event.preventDefault()
}

/** The browser may be closed before the last change is saved: it asks then. */
function onUnload(event: BeforeUnloadEvent) {
  if (page.state !== 'saved') event.preventDefault()
}

onMounted(async () => {
  window.addEventListener('keydown', onKey)
  window.addEventListener('beforeunload', onUnload)
  await load()
  placer.current = {
    pageId: props.id,
    give: (placement, target) => givePlacement(editor.value!, placement, target),
    place: file => place(file),
    placeFromComputer: async () => placeUploads(await chooseFiles({ multiple: true })),
    focus: () => editor.value?.view.focus(),
  }
})

onBeforeUnmount(() => {
  window.removeEventListener('keydown', onKey)
  window.removeEventListener('beforeunload', onUnload)
  placer.current = undefined
})
/** Nobody leaves before the last change is saved, for another board or for another page. */
async function leave() {
  await page.save()
  if (page.state !== 'saved') {
    const leaves = await asking.ask({
      question: 'Leave without saving?',
      detail: page.problem,
      yes: 'Leave without saving',
      no: 'Stay',
    })
    if (!leaves) return false
  }
  page.close()
}
onBeforeRouteLeave(leave)
// Where the library stands is in the address, too: that is no other page.
onBeforeRouteUpdate((to, from) => (to.path === from.path ? undefined : leave()))

useHead({ style: [{ innerHTML: () => contentCss(looks.style) + looks.css, key: 'page-content' }] })
</script>

<template>
  <div class="page-board">
    <p v-if="failure" class="failure" role="alert">{{ failure }} <NuxtLink to="/desk">All pages</NuxtLink></p>
    <template v-else-if="page.current && editor">
      <div class="head">
        <NuxtLink to="/desk" class="back">Pages</NuxtLink>
        <b v-if="page.current.edge" class="address">{{ page.current.title }}</b>
        <code v-else class="address">/{{ page.current.slug }}</code>
        <span class="save" :class="page.state" role="status">{{ saveWords }}</span>
        <VBtn :aria-pressed="!hasNote" title="Address, words for search engines, menu, earlier versions" @click="callSettings">
          Page settings
        </VBtn>
        <VBtn :aria-pressed="previewing" title="The draft as visitors would see it" @click="preview">
          {{ previewing ? 'Back to writing' : 'Preview' }}
        </VBtn>
        <a v-if="page.liveHref" :href="page.liveHref" target="_blank" class="live" title="Open the live page (Ctrl+Shift+Enter)"
          >View live</a
        >
        <span v-else class="never">Not live yet</span>
      </div>
      <div v-if="page.state === 'conflict'" class="two-versions" role="alert">
        <p>This page was changed in another tab or by someone else. Your version is still here, and not saved.</p>
        <VBtn @click="load()">Load the other version</VBtn>
        <VBtn @click="keepMine">Keep mine instead</VBtn>
      </div>
      <PagePreview v-if="previewing" @keydown.esc="preview" />
      <PageToolbar v-show="!previewing" :editor="editor" @place="openFinder('place')" @add="add" @link="openFinder('link')" />
      <div v-show="!previewing" ref="scroll" class="scroll">
        <div class="desk-top" :class="{ 'has-note': hasNote }">
          <div ref="sheet" class="sheet" @dragover="onDragOver" @dragleave.self="spot = undefined" @drop="onDrop" @click="writeOn">
            <p v-if="page.current.edge === 'head'" class="site-name">{{ useSession().site.name }}</p>
            <label v-else-if="!page.current.edge" class="title tr-page"
              ><span class="tr-spoken">Title of the page</span>
              <!-- eslint-disable-next-line vue/no-restricted-html-elements -- written where it stands, in the type of the page -->
              <textarea
                rows="1"
                :value="page.current.title"
                maxlength="200"
                spellcheck="true"
                @focus="settingsCalled = true"
                @input="page.rename(($event.target as HTMLTextAreaElement).value)"
                @keydown.enter.prevent="focusStart(editor)"
              />
            </label>
            <div class="text">
              <EditorContent :editor="editor" />
              <EdgeLine v-if="page.current.edge" :edge="page.current.edge" @order="placePages" />
              <BlockHandle
                :editor="editor"
                :area="sheet"
                @take="moved = $event"
                @release="
                  () => {
                    moved = undefined
                    spot = undefined
                  }
                "
                @select="selectBlock"
              />
              <div v-if="spot?.kind === 'words'" class="drop-words">These words become a link</div>
              <div
                v-else-if="spot"
                class="drop-mark"
                :class="spot.kind"
                :style="{
                  top: `${spot.mark.top}px`,
                  left: `${spot.mark.left}px`,
                  width: `${spot.mark.width}px`,
                  height: `${spot.mark.height}px`,
                }"
              >
                <span>{{ dropWords }}</span>
              </div>
            </div>
            <FileFinder
              v-if="finder"
              class="finder-pop"
              :style="{ top: `${finder.top}px`, left: `${finder.left}px` }"
              computer
              :label="finder.purpose === 'link' ? 'Find what these words lead to' : 'Find a file to place'"
              :parts="finder.purpose === 'place' ? addableFor : undefined"
              anywhere
              @part="add"
              @choose="choose"
              @lead="lead"
              @computer="chooseFromComputer"
              @close="closeFinder"
            />
          </div>
          <div class="margin">
            <div v-if="hasNote" ref="noteBox" class="placed-note" :style="{ '--top': `${noteTop}px` }">
              <ShelfNote
                v-if="selected?.kind === 'shelf'"
                ref="note"
                :key="selected.attrs.placement"
                :attrs="selected.attrs"
                @change="changePlacement(editor, selected.attrs.placement, $event)"
                @remove="removePlacement(editor, selected.attrs.placement)"
                @leave="editor.view.focus()"
                @duplicate="duplicateBlock(editor, selected.attrs.placement)"
                @move="moveBlock(editor, $event)"
              />
              <PictureNote
                v-else-if="selected?.kind === 'picture'"
                ref="note"
                :key="selected.attrs.placement"
                :attrs="selected.attrs"
                @change="changePlacement(editor, selected.attrs.placement, $event)"
                @remove="removePlacement(editor, selected.attrs.placement)"
                @leave="editor.view.focus()"
                @duplicate="duplicateBlock(editor, selected.attrs.placement)"
                @move="moveBlock(editor, $event)"
              />
              <PlacementNote
                v-else-if="selected"
                ref="note"
                :key="selected.attrs.placement"
                :kind="selected.kind"
                :attrs="selected.attrs"
                :in-row="parts[0]?.name === 'buttonRow'"
                :tone="parts.find(part => part.name === 'section')?.node.attrs.tone ?? 'plain'"
                @change="changePlacement(editor, selected.attrs.placement, $event)"
                @computer="retargetFromComputer"
                @remove="removePlacement(editor, selected.attrs.placement)"
                @leave="editor.view.focus()"
                @duplicate="duplicateBlock(editor, selected.attrs.placement)"
                @again="again"
                @move="moveBlock(editor, $event)"
              />
              <PartNote
                v-for="part in parts"
                :key="`${part.name} ${part.position}`"
                :part="part"
                @set="setPart(editor, part, $event)"
                @columns="setColumnCount(editor, part, $event)"
                @move="movePart(part, $event)"
                @fill="filling = part"
                @table="actOnTable"
                @dissolve="dissolvePart(editor, part)"
                @remove="removePart(editor, part)"
                @leave="editor.view.focus()"
              />
            </div>
            <PageSettings v-else ref="settings" @restore="bringBack" />
          </div>
        </div>
      </div>
    </template>
    <FolderPickDialog
      v-if="filling"
      question="A button for each file of which folder?"
      hint="They look like the first button of this row."
      act="Fill the row"
      @choose="fill"
      @close="filling = undefined"
    />
    <ArrangeDialog
      v-if="arranging"
      :count="arranging.ours.length + arranging.files.length"
      :stored="!arranging.files.length"
      :pictures="arePictures(arranging.ours, arranging.files)"
      @choose="arrange"
      @close="arranging = undefined"
    />
  </div>
</template>

<style scoped>
.page-board {
  display: flex;
  flex-direction: column;
  min-height: 0;
  flex: 1;
}
.head {
  display: flex;
  align-items: center;
  gap: 12px;
  height: 38px;
  padding: 0 12px;
  border-bottom: 1px solid var(--line);
  white-space: nowrap;
}
.address {
  color: var(--soft);
  overflow: hidden;
  text-overflow: ellipsis;
}
.save {
  margin-left: auto;
  color: var(--soft);
  overflow: hidden;
  text-overflow: ellipsis;
}
.save.failed,
.save.conflict {
  color: #9a4420;
  font-weight: 600;
}
.never {
  color: var(--soft);
}
.two-versions {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
  padding: 8px 12px;
  background: #f6e3d8;
  border-bottom: 1px solid #d9a68b;
}
.failure {
  padding: 20px;
}
.scroll {
  flex: 1;
  min-height: 0;
  overflow: auto;
  background: var(--grey);
}
.desk-top {
  display: grid;
  grid-template-columns: minmax(0, 720px) 284px;
  justify-content: center;
  min-height: 100%;
  gap: 0;
  padding: 14px 14px 0;
}
.sheet {
  --bleed: 44px;
  position: relative;
  background: #fcfbf8;
  border: 1px solid var(--line);
  border-bottom: 0;
  padding: 40px var(--bleed) 120px;
  cursor: text;
}
.title textarea {
  width: 100%;
  field-sizing: content;
  resize: none;
  overflow: hidden;
  border: 0;
  background: none;
  color: #24211d;
  padding: 0;
  font:
    560 clamp(1.7rem, 1.2rem + 1.6vw, 2.4rem)/1.22 Literata,
    Georgia,
    serif;
  letter-spacing: -0.018em;
  margin-bottom: 0.5em;
}
.title textarea:focus-visible {
  outline: none;
  box-shadow: 0 2px 0 var(--water);
}
.site-name {
  margin: 0 0 10px;
  font:
    600 1.15rem/1.4 Literata,
    Georgia,
    serif;
  color: #24211d;
  cursor: default;
}
.text {
  position: relative;
}
.text :deep(.tr-page) {
  min-height: 200px;
  outline: none;
}
.text :deep(tr:first-child th) {
  border-bottom: 2px solid var(--accent);
}
.text :deep(.tr-page > :first-child) {
  margin-top: 0;
}
.text :deep(p.is-empty:first-child::before) {
  content: attr(data-placeholder);
  float: left;
  height: 0;
  color: #6b655b;
  pointer-events: none;
}
.text :deep(.tr-column) {
  outline: 1px dashed #b9c4c1;
  outline-offset: 5px;
  border-radius: 2px;
}
.text :deep(.tr-row) {
  min-height: 40px;
  outline: 1px dashed #b9c4c1;
  outline-offset: 5px;
}
.text :deep(.tr-space) {
  background: repeating-linear-gradient(135deg, #e4eae8 0 1px, transparent 1px 7px);
}
.text :deep(.ProseMirror-selectednode:is(hr, .tr-space, .tr-section, .tr-columns, .tr-row)) {
  outline: 2px solid var(--water);
  outline-offset: 4px;
}
.text :deep(.block-view) {
  position: relative;
  cursor: pointer;
  border-radius: 4px;
}
.text :deep(.block-view.selected) {
  outline: 2px solid var(--water);
  outline-offset: 5px;
}
.text :deep(.block-empty) {
  margin: 1.1em 0;
  padding: 26px;
  border: 2px dashed #9a4420;
  border-radius: 4px;
  color: #9a4420;
  font:
    600 14px 'Hanken Grotesk Variable',
    sans-serif;
}
.text :deep(.block-state) {
  display: block;
  margin: -8px 0 14px;
  font:
    400 12px/1.4 'Hanken Grotesk Variable',
    sans-serif;
  color: var(--soft);
}
.text :deep(.block-state.fault) {
  color: #9a4420;
  font-weight: 600;
}
.text :deep(.without-target) {
  color: #9a4420;
  text-decoration: underline dashed;
}
.text :deep(.ProseMirror-gapcursor::after) {
  border-top: 2px solid var(--water);
  width: 40px;
}
.drop-mark {
  position: absolute;
  background: var(--water);
  pointer-events: none;
  z-index: 5;
}
.drop-mark.button {
  background: none;
  border: 3px solid var(--water);
  border-radius: 8px;
}
.drop-mark span {
  position: absolute;
  right: 0;
  bottom: 100%;
  white-space: nowrap;
  padding: 0 8px;
  font-size: 12px;
  line-height: 19px;
  background: var(--water);
  color: #fff;
  border-radius: 3px 3px 0 0;
}
.drop-words {
  position: sticky;
  bottom: 16px;
  width: max-content;
  padding: 4px 10px;
  background: var(--water);
  color: #fff;
  border-radius: 3px;
  pointer-events: none;
}
.finder-pop {
  position: absolute;
  z-index: 30;
}
.margin {
  position: relative;
  padding-left: 0;
}
.placed-note {
  position: absolute;
  top: var(--top);
  left: -1px;
  right: 0;
  margin-bottom: 40px;
}
@container (max-width: 480px) {
  .head {
    flex-wrap: wrap;
    height: auto;
    gap: 2px 10px;
    padding: 6px 12px;
  }
  .head::after {
    content: '';
    order: 1;
    flex-basis: 100%;
  }
  .head > .plain,
  .head > .live,
  .head > .never {
    order: 2;
  }
}
@container (max-width: 700px) {
  .desk-top {
    grid-template-columns: minmax(0, 1fr);
    padding: 0;
  }
  .placed-note :deep(.note) {
    max-height: none;
  }
  .placed-note {
    position: sticky;
    bottom: 0;
    top: auto;
    left: 0;
    max-height: 42vh;
    margin-bottom: 0;
    overflow: auto;
  }
  .desk-top.has-note .margin {
    position: sticky;
    bottom: 0;
  }
  .sheet {
    --bleed: 20px;
    border: 0;
  }
}
</style>
