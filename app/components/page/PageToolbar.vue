<script setup lang="ts">
import {
  mdiFormatBold,
  mdiFormatItalic,
  mdiFormatListBulleted,
  mdiFormatListNumbered,
  mdiLinkVariant,
  mdiRedo,
  mdiUndo,
  mdiTrayArrowUp,
  mdiPlus,
} from '@mdi/js'
import type { Editor } from '@tiptap/vue-3'
import { ADDABLE, type Addable } from '~/editor/add'

const props = defineProps<{ editor: Editor }>()
const emit = defineEmits<{ place: []; link: []; add: [part: Addable] }>()
const adding = ref(false)

const KINDS = [
  { value: '0', words: 'Text' },
  { value: '2', words: 'Heading' },
  { value: '3', words: 'Smaller heading' },
  { value: '4', words: 'Smallest heading' },
]
const kind = computed(() => String(props.editor.isActive('heading') ? props.editor.getAttributes('heading').level : 0))
const hasWords = computed(() => {
  const { from, to, $from } = props.editor.state.selection
  return to > from && $from.parent.isTextblock
})

/** Does something and goes back to the text at once: TipTap's own focus waits for a frame, in which the next key would be lost. */
function act(name: 'toggleBold' | 'toggleItalic' | 'toggleBulletList' | 'toggleOrderedList' | 'undo' | 'redo') {
  const { commands, view } = props.editor
  commands[name]()
  view.focus()
}

function setKind(event: Event) {
  const level = Number((event.target as HTMLSelectElement).value)
  const { commands, view } = props.editor
  if (level) commands.setHeading({ level: level as 2 | 3 | 4 })
  else commands.setParagraph()
  view.focus()
}

const tools = computed(
  () =>
    [
      { icon: mdiFormatBold, words: 'Bold', on: props.editor.isActive('bold'), command: 'toggleBold' },
      { icon: mdiFormatItalic, words: 'Italic', on: props.editor.isActive('italic'), command: 'toggleItalic' },
      { icon: mdiFormatListBulleted, words: 'List', on: props.editor.isActive('bulletList'), command: 'toggleBulletList' },
      { icon: mdiFormatListNumbered, words: 'Numbered list', on: props.editor.isActive('orderedList'), command: 'toggleOrderedList' },
    ] as const,
)
</script>

<template>
  <div class="toolbar" role="toolbar" aria-label="Words on the page">
    <select :value="kind" aria-label="Kind of line" @change="setKind">
      <option v-for="option in KINDS" :key="option.value" :value="option.value">{{ option.words }}</option>
    </select>
    <button
      v-for="tool in tools"
      :key="tool.words"
      type="button"
      class="tool"
      :aria-pressed="tool.on"
      :aria-label="tool.words"
      :title="tool.words"
      @click="act(tool.command)"
    >
      <VIcon :icon="tool.icon" size="18" />
    </button>
    <span class="gap" />
    <button type="button" class="tool" aria-label="Undo" title="Undo (Ctrl+Z)" :disabled="!editor.can().undo()" @click="act('undo')">
      <VIcon :icon="mdiUndo" size="18" />
    </button>
    <button type="button" class="tool" aria-label="Redo" title="Redo (Ctrl+Shift+Z)" :disabled="!editor.can().redo()" @click="act('redo')">
      <VIcon :icon="mdiRedo" size="18" />
    </button>
    <span class="gap" />
    <button
      type="button"
      class="tool worded"
      :disabled="!hasWords"
      title="Link the selected words to a file (Ctrl+Shift+K)"
      @mousedown.prevent
      @click="$emit('link')"
    >
      <VIcon :icon="mdiLinkVariant" size="18" /> Link words
    </button>
    <button type="button" class="tool worded" title="Put a download button here (/)" @mousedown.prevent @click="$emit('place')">
      <VIcon :icon="mdiTrayArrowUp" size="18" /> Place a file
    </button>
    <VMenu v-model="adding" location="bottom start">
      <template #activator="{ props: activator }">
        <button type="button" class="tool worded" v-bind="activator" title="Put something else on the page (/)">
          <VIcon :icon="mdiPlus" size="18" /> Add
        </button>
      </template>
      <ul class="addable" role="menu">
        <li v-for="part in ADDABLE" :key="part.name" role="none">
          <button
            type="button"
            role="menuitem"
            @click="
              () => {
                adding = false
                emit('add', part)
              }
            "
          >
            <VIcon :icon="part.icon" size="18" /><b>{{ part.words }}</b
            ><span>{{ part.hint }}</span>
          </button>
        </li>
      </ul>
    </VMenu>
  </div>
</template>

<style scoped>
.toolbar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 1px;
  padding: 3px 10px;
  border-bottom: 1px solid var(--line);
  background: #f1f4f3;
}
select {
  height: 28px;
  padding: 0 4px;
  border: 1px solid var(--line);
  border-radius: 3px;
  background: #fff;
  margin-right: 6px;
}
.tool {
  min-width: 28px;
  height: 28px;
  padding: 0 5px;
  border-radius: 3px;
  color: var(--ink);
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 5px;
}
.tool:hover:not(:disabled) {
  background: #dde5e3;
}
.tool[aria-pressed='true'] {
  background: #cbd8d5;
}
.tool:disabled {
  color: #6c7a76;
  cursor: default;
}
.worded {
  padding: 0 8px;
}
.addable {
  list-style: none;
  margin: 0;
  padding: 4px;
  background: #fff;
  border: 1px solid var(--ink);
  border-radius: 4px;
}
.addable button {
  display: grid;
  grid-template-columns: 26px auto 1fr;
  gap: 8px;
  align-items: center;
  width: 100%;
  min-height: 32px;
  padding: 0 10px 0 8px;
  text-align: left;
  border-radius: 3px;
  color: var(--ink);
}
.addable button:hover,
.addable button:focus-visible {
  background: #e8efed;
}
.addable b {
  font-weight: 600;
}
.addable span {
  color: var(--soft);
  font-size: 12.5px;
}
.gap {
  width: 1px;
  height: 18px;
  margin: 0 5px;
  background: var(--line);
}
</style>
