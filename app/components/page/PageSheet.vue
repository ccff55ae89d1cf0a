<script setup lang="ts">
import { EditorContent } from '@tiptap/vue-3'
import { NodeSelection } from '@tiptap/pm/state'
import { splitHead } from '~~/core/page/edges'
import { titleOf } from '~~/core/catalogue/values'
import { targetFacts } from '~~/core/page/placeholders'
import { useBench } from '~/bench/bench'
import { addableAt } from '~/editor/add'
import { focusEnd, focusStart } from '~/editor/commands'

/** The sheet: the title and the text of the page, where files are dropped and the finder opens. */
const rights = useRights()
const page = usePage()
const { editor, sheet, screen, margin, dropping, finding, placePages } = useBench()
const { screen: onScreen, zoom, shown, width } = screen
const looks = useLooks()
const { spot, words, target } = dropping
const { finder } = finding
const { settingsCalled } = margin

/** The section over a picture that a page begins with, in which its title stands. */
const opening = computed(() => {
  const first = page.draft?.content[0]
  const file = first?.type === 'section' && first.attrs.picture ? useLibrary().known.get(first.attrs.picture) : undefined
  return first?.type === 'section' && file && !file.deleted && targetFacts(file).picture ? first.attrs : undefined
})
/** A picture in the head stands in the place of the site's name. */
const marked = computed(() => page.current?.edge === 'head' && !!splitHead(page.draft).mark)
const { catalogue, filling } = useSample(() => page.current?.catalogue)
/** The name of the entry that stands for all: it is the title of its page. */
const entryTitle = computed(() => (filling.value ? titleOf(filling.value.entry.values) : `Name of the ${catalogue.value?.one ?? 'entry'}`))
const title = ref<HTMLElement>()
const { height: titleHeight } = useElementSize(title, undefined, { box: 'border-box' })

function selectBlock(position: number) {
  const { state, view } = editor.value!
  view.dispatch(state.tr.setSelection(NodeSelection.create(state.doc, position)))
  view.focus()
}

/** A click below the last block writes on, also where that block is a button. */
function writeOn(event: MouseEvent) {
  const view = editor.value!.view
  // A click on what is selected already changes nothing in the editor, and asks for its settings nevertheless.
  if (view.dom.contains(event.target as Node)) settingsCalled.value = false
  if (event.target !== sheet.value && event.target !== view.dom) return
  const last = view.dom.lastElementChild?.getBoundingClientRect()
  if (!last || event.clientY < last.bottom) return
  const { doc } = view.state
  if (!doc.lastChild?.isTextblock) editor.value!.commands.insertContentAt(doc.content.size, { type: 'paragraph' })
  focusEnd(editor.value!)
}
</script>

<template>
  <div
    v-if="page.current && editor"
    ref="sheet"
    v-drop="rights.may('write') ? target : undefined"
    class="sheet"
    data-sheet
    :style="{ 'width': `${shown * zoom}px`, '--sheet-paper': looks.palettes.plain.paper }"
    @click="writeOn"
  >
    <div
      class="visitor"
      :class="onScreen"
      :style="{ 'width': `${width}px`, 'marginLeft': `${(shown - width) / 2}px`, zoom, '--zoom': zoom }"
    >
      <p v-if="page.current.edge === 'head' && !marked" class="site-name tr-page">{{ useSession().site.name }}</p>
      <p v-else-if="page.current.edge === 'entry'" class="entry-title tr-page">
        <span class="h1">{{ entryTitle }}</span>
      </p>
      <label
        v-else-if="!page.current.edge"
        ref="title"
        class="title tr-page"
        :class="opening && ['opening', `tr-tone-${opening.tone}`, `over-${opening.padding}`]"
        ><span class="tr-spoken">Title of the page</span>
        <!-- eslint-disable-next-line vue/no-restricted-html-elements -- written where it stands, in the type of the page -->
        <textarea
          rows="1"
          :value="page.current.title"
          :readonly="!rights.may('write')"
          maxlength="200"
          spellcheck="true"
          @focus="settingsCalled = true"
          @input="page.rename(($event.target as HTMLTextAreaElement).value)"
          @keydown.enter.prevent="focusStart(editor)"
        />
      </label>
      <div class="text" :class="{ opening, marked }" :style="{ '--title': `${titleHeight}px` }">
        <EditorContent :editor="editor" />
        <EdgeLine v-if="page.current.edge && page.current.edge !== 'entry'" :edge="page.current.edge" @order="placePages" />
      </div>
    </div>
    <BlockHandle v-if="rights.may('write')" :editor="editor" :area="sheet" @select="selectBlock" />
    <DropMark v-if="spot" :spot="spot" :words="words" />
    <FileFinder
      v-if="finder"
      class="finder-pop"
      :style="{ top: `${finder.top}px`, left: `${finder.left}px` }"
      computer
      :label="finder.purpose === 'link' ? 'Find what these words lead to' : 'Find a file to place'"
      :parts="finder.purpose === 'place' ? text => addableAt(editor!, text) : undefined"
      anywhere
      @part="finding.add"
      @choose="finding.choose"
      @lead="finding.lead"
      @computer="finding.chooseFromComputer"
      @close="finding.close"
    />
  </div>
</template>

<style scoped>
.sheet {
  position: relative;
  min-height: 100%;
  margin-left: auto;
  overflow-x: clip;
  background: var(--sheet-paper);
  outline: 1px solid var(--line);
  cursor: text;
}
/* The rooms of a published page around what it says. */
.visitor {
  --bleed: 1.5rem;
  padding: 3.2rem var(--bleed) calc(120px / var(--zoom));
}
.visitor.phone {
  --bleed: 1.15rem;
  padding-top: 2rem;
}
.title {
  display: block;
}
.title textarea {
  display: block;
  width: 100%;
  field-sizing: content;
  resize: none;
  overflow: hidden;
  border: 0;
  background: none;
  color: var(--ink);
  /* What hangs below the line is not cut off where the line is scaled. */
  padding: 0 0 0.12em;
  font: 560 var(--h1)/1.22 var(--heading);
  letter-spacing: -0.018em;
  margin-bottom: 0.58em;
}
.title textarea:focus-visible {
  outline: none;
  box-shadow: 0 2px 0 var(--water);
}
.entry-title .h1 {
  display: block;
  color: var(--ink);
  font: 560 var(--h1)/1.22 var(--heading);
  letter-spacing: -0.018em;
  margin-bottom: 0.58em;
  cursor: default;
}
.site-name {
  max-width: 43rem;
  margin: 0 auto 10px;
  font: 600 1.15rem/1.4 var(--heading);
  color: var(--ink);
  cursor: default;
}
.text {
  position: relative;
}
.text :deep(.tr-page) {
  min-height: 200px;
  outline: none;
}
.text :deep(.tableWrapper tr:first-child:not(:has(td)) th) {
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
/* A fold-out asks something before anything is written. */
.text :deep(.tr-fold-title:has(> .ProseMirror-trailingBreak:only-child)::before) {
  content: 'A question your customers ask';
  position: absolute;
  color: var(--soft);
  font-style: italic;
  font-weight: 400;
  pointer-events: none;
}
/* What belongs at a line, until something is written there. */
.text :deep([data-ghost]:has(> .ProseMirror-trailingBreak:only-child)::before) {
  content: attr(data-ghost);
  float: left;
  height: 0;
  color: var(--soft);
  font-style: italic;
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
/* The mark of the site, as high as it is live. */
.text.marked :deep(:nth-child(1 of .block-view:has(.tr-picture)) .tr-picture) {
  margin: 0 0 10px;
  text-align: start;
}
.text.marked :deep(:nth-child(1 of .block-view:has(.tr-picture)) .tr-image) {
  width: auto;
  height: 3rem;
  margin: 0;
}
/* A title over a picture stands in its section, as it does live. */
.title.opening {
  position: relative;
  z-index: 1;
  margin-top: -3.2rem;
  padding-top: var(--room);
}
.phone .title.opening {
  margin-top: -2rem;
}
.title.over-small {
  padding-top: calc(var(--room) * 0.46);
}
.title.over-large {
  padding-top: calc(var(--room) * 1.77);
}
.text.opening :deep(.tr-page > .tr-section:first-child) {
  margin-top: calc(-1 * var(--title) - 0.01px);
  padding-top: var(--title);
  /* Its picture reaches up behind a head that stands over it. */
  overflow: clip;
}
.text.opening :deep(.tr-page > .tr-section:first-child > .tr-behind) {
  top: calc(-1 * var(--head-over, 0px));
}
.text :deep(.tr-behind) {
  pointer-events: none;
  user-select: none;
}
/* Some blocks lie in a view of their own here, and tables in another box than on the page. */
.text :deep(:is(.tr-column, .tr-section) > :is(.block-view, .shelf-view):first-child > div > *) {
  margin-top: 0;
}
.text :deep(:is(.tr-column, .tr-section) > :is(.block-view, .shelf-view):last-child > div > *) {
  margin-bottom: 0;
}
.text :deep(.tableWrapper) {
  margin-block: 1.4em;
}
.text :deep(:is(.tr-page, .tr-section) > .block-view:has(> .tr-picture-wide)) {
  max-width: 64rem;
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
/* What is said of a block takes no room on the page, and is as large as other words of the desk. */
.text :deep(.block-state) {
  position: absolute;
  z-index: 2;
  top: 100%;
  left: 0;
  padding: 0 0.5em;
  border-radius: 2px;
  background: #fff;
  font:
    400 calc(12px / var(--zoom)) / 1.5 'Hanken Grotesk Variable',
    sans-serif;
  white-space: nowrap;
  color: #55605c;
}
.text :deep(.block-state.count) {
  visibility: hidden;
}
.text :deep(:is(.selected, :hover) > .block-state.count) {
  visibility: visible;
}
.text :deep(.block-state.fault) {
  position: static;
  display: block;
  width: max-content;
  max-width: 100%;
  white-space: normal;
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
.finder-pop {
  position: absolute;
  z-index: 30;
}
</style>
