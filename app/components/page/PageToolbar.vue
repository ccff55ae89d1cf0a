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
import { useBench } from '~/bench/bench'
import { ADDABLE, type Addable } from '~/editor/add'
import { SCREENS } from '~/editor/screens'

const props = defineProps<{ editor: Editor }>()
const emit = defineEmits<{ place: []; link: []; add: [part: Addable] }>()

const { screen, scale, zoom } = useBench().screen
const SCREEN_CHOICES = Object.entries(SCREENS).map(([value, { words }]) => ({ value, words }))
/** as large as fits, or as large as it was chosen */
const scaleChoices = computed(() => [
  { value: 0, words: `Fit ${Math.round(zoom.value * 100)} %` },
  ...[50, 75, 100, 125].map(percent => ({ value: percent / 100, words: `${percent} %` })),
])

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

function setKind(kind: string) {
  const level = Number(kind)
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
  <div color="ink" class="toolbar" role="toolbar" aria-label="Words on the page">
    <VSelect
      class="kind small"
      :model-value="kind"
      aria-label="Kind of line"
      :items="KINDS"
      item-title="words"
      @update:model-value="setKind"
    />
    <VBtn
      v-for="tool in tools"
      :key="tool.words"
      color="ink"
      class="tool"
      :aria-pressed="tool.on"
      :aria-label="tool.words"
      :title="tool.words"
      @click="act(tool.command)"
    >
      <VIcon :icon="tool.icon" size="18" />
    </VBtn>
    <span class="gap" />
    <VBtn color="ink" class="tool" aria-label="Undo" title="Undo (Ctrl+Z)" :disabled="!editor.can().undo()" @click="act('undo')">
      <VIcon :icon="mdiUndo" size="18" />
    </VBtn>
    <VBtn color="ink" class="tool" aria-label="Redo" title="Redo (Ctrl+Shift+Z)" :disabled="!editor.can().redo()" @click="act('redo')">
      <VIcon :icon="mdiRedo" size="18" />
    </VBtn>
    <span class="gap" />
    <VBtn
      color="ink"
      class="tool worded"
      :disabled="!hasWords"
      :title="
        hasWords ? 'Link the selected words (Ctrl+Shift+K), or drop a file on them' : 'Select words first; then they can lead to a file'
      "
      :prepend-icon="mdiLinkVariant"
      @mousedown.prevent
      @click="$emit('link')"
      >Link words</VBtn
    >
    <VBtn
      color="ink"
      class="tool worded"
      title="Put a download button here (/)"
      :prepend-icon="mdiTrayArrowUp"
      @mousedown.prevent
      @click="$emit('place')"
      >Place a file</VBtn
    >
    <VMenu location="bottom start">
      <template #activator="{ props: activator }">
        <VBtn color="ink" class="tool worded" v-bind="activator" title="Put something else on the page (/)" :prepend-icon="mdiPlus"
          >Add</VBtn
        >
      </template>
      <MenuList>
        <MenuItem v-for="part in ADDABLE" :key="part.name" :prepend-icon="part.icon" @click="emit('add', part)">
          <b>{{ part.words }}</b> <span class="hint">{{ part.hint }}</span>
        </MenuItem>
      </MenuList>
    </VMenu>
    <span class="seen">
      <VSelect v-model="screen" class="screen small" aria-label="Screen of the visitor" :items="SCREEN_CHOICES" item-title="words" />
      <VSelect
        class="scale small"
        aria-label="Size of the sheet"
        :model-value="scale ?? 0"
        :items="scaleChoices"
        item-title="words"
        @update:model-value="scale = $event || null"
      />
    </span>
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
.kind {
  flex: none;
  width: 112px;
  margin-right: 6px;
  font: inherit;
}
.seen {
  display: flex;
  gap: 4px;
  margin-left: auto;
}
.screen {
  width: 88px;
}
.scale {
  width: 102px;
}
.tool {
  min-width: 28px;
  height: 28px;
  padding: 0 5px;
  border-radius: 3px;
  color: var(--ink);
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
.gap {
  width: 1px;
  height: 18px;
  margin: 0 5px;
  background: var(--line);
}
/* On a phone the page is shown as on this one. */
@container (max-width: 480px) {
  .seen {
    display: none;
  }
}
</style>
