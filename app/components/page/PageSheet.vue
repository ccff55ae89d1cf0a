<script setup lang="ts">
import { EditorContent } from '@tiptap/vue-3'
import { NodeSelection } from '@tiptap/pm/state'
import { useBench } from '~/bench/bench'
import { addableFor } from '~/editor/add'
import { focusEnd, focusStart } from '~/editor/commands'

/** The sheet: the title and the text of the page, where files are dropped and the finder opens. */
const page = usePage()
const { editor, sheet, margin, dropping, finding, placePages } = useBench()
const { spot, words, target } = dropping
const { finder } = finding
const { settingsCalled } = margin

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
  <div v-if="page.current && editor" ref="sheet" v-drop="target" class="sheet" @click="writeOn">
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
      <BlockHandle :editor="editor" :area="sheet" @select="selectBlock" />
      <DropMark v-if="spot" :spot="spot" :words="words" />
    </div>
    <FileFinder
      v-if="finder"
      class="finder-pop"
      :style="{ top: `${finder.top}px`, left: `${finder.left}px` }"
      computer
      :label="finder.purpose === 'link' ? 'Find what these words lead to' : 'Find a file to place'"
      :parts="finder.purpose === 'place' ? addableFor : undefined"
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
.finder-pop {
  position: absolute;
  z-index: 30;
}
@container (max-width: 700px) {
  .sheet {
    --bleed: 20px;
    border: 0;
  }
}
</style>
