<script setup lang="ts">
import type { ComponentPublicInstance } from 'vue'
import { useBench } from '~/bench/bench'
import { changePlacement, duplicateBlock, removePlacement } from '~/editor/commands'
import { dissolvePart, moveBlock, removePart, selectPart, setColumnCount, setPart, type Part } from '~/editor/parts'
import type { TableAct } from '~/editor/table'

/** The margin beside the sheet: settings of what is selected and of what it lies in, or of the page. */
const bench = useBench()
const rights = useRights()
const { editor, scroll, margin, opening, filling, again, againFromComputer, retargetFromComputer, focus } = bench
const { selected, parts, height, hasNote } = margin
const { row } = filling

const note = ref<{ focus: () => void }>()
watchEffect(() => (bench.note.value = note.value))

const settings = ref<ComponentPublicInstance>()
/** They stand at the top of the margin, or below the page where there is no room beside it. */
bench.onSettings(async () => {
  await nextTick()
  settings.value?.$el.scrollIntoView({ block: 'nearest' })
})

const noteBox = ref<HTMLElement>()
/** The note stands at its button's height, moved only as far as it takes to be seen whole. */
const noteTop = ref(0)
watch(
  () => [selected.value?.attrs.placement, parts.value.length, height.value],
  async () => {
    await nextTick()
    const [area, element] = [scroll.value, noteBox.value]
    if (!area || !element) return
    const lowest = area.scrollTop + area.clientHeight - element.offsetHeight - 24
    noteTop.value = Math.max(0, Math.min(height.value - 12, Math.max(lowest, area.scrollTop)))
  },
  { immediate: true },
)

/** the catalogue whose entries the open page is laid out for */
const pageOf = computed(() => usePage().current?.catalogue ?? null)
/** the one whose entries are laid out where the caret is */
const catalogue = computed(
  () => (parts.value.find(({ name }) => name === 'entryList')?.node.attrs.catalogue as string | undefined) ?? pageOf.value,
)

/** What every selected block can have done to it. */
const acts = computed(() => {
  const placement = selected.value?.attrs.placement ?? ''
  return {
    onChange: (attrs: object) => changePlacement(editor.value!, placement, attrs),
    onRemove: () => removePlacement(editor.value!, placement),
    onDuplicate: () => duplicateBlock(editor.value!, placement),
    onMove: (direction: -1 | 1) => void moveBlock(editor.value!, direction),
    onLeave: focus,
  }
})

function movePart(part: Part, direction: -1 | 1) {
  selectPart(editor.value!, part)
  moveBlock(editor.value!, direction)
}
function actOnTable(act: TableAct) {
  editor.value!.commands[act]()
  focus()
}
</script>

<template>
  <div class="margin" :class="{ 'has-note': hasNote }">
    <div v-if="hasNote && editor && rights.may('write')" ref="noteBox" class="placed-note" :style="{ '--top': `${noteTop}px` }">
      <ShelfNote v-if="selected?.kind === 'shelf'" ref="note" :key="selected.attrs.placement" :attrs="selected.attrs" v-bind="acts" />
      <SearchNote
        v-else-if="selected?.kind === 'search'"
        ref="note"
        :key="selected.attrs.placement"
        :attrs="selected.attrs"
        v-bind="acts"
      />
      <LetterboxNote
        v-else-if="selected?.kind === 'letterbox'"
        ref="note"
        :key="selected.attrs.placement"
        :attrs="selected.attrs"
        v-bind="acts"
      />
      <PrivacyNote v-else-if="selected?.kind === 'privacy'" ref="note" :key="selected.attrs.placement" v-bind="acts" />
      <PictureNote
        v-else-if="selected?.kind === 'picture'"
        ref="note"
        :key="selected.attrs.placement"
        :attrs="selected.attrs"
        :catalogue="catalogue"
        v-bind="acts"
      />
      <PlacementNote
        v-else-if="selected"
        ref="note"
        :key="selected.attrs.placement"
        :kind="selected.kind"
        :attrs="selected.attrs"
        :catalogue="catalogue"
        :in-row="parts[0]?.name === 'buttonRow'"
        :tone="parts.find(part => part.name === 'section')?.node.attrs.tone ?? 'plain'"
        v-bind="acts"
        @computer="retargetFromComputer"
        @again="again"
        @again-from-computer="againFromComputer"
      />
      <PartNote
        v-for="part in parts"
        :key="`${part.name} ${part.position}`"
        :part="part"
        :catalogue="part.name === 'entryList' ? pageOf : catalogue"
        @set="setPart(editor, part, $event)"
        @columns="setColumnCount(editor, part, $event)"
        @move="movePart(part, $event)"
        @fill="row = part"
        @table="actOnTable"
        @dissolve="dissolvePart(editor, part)"
        @remove="removePart(editor, part)"
        @leave="focus"
      />
    </div>
    <PageSettings v-else ref="settings" @restore="opening.bringBack" />
  </div>
</template>

<style scoped>
.margin {
  position: relative;
}
.placed-note {
  position: absolute;
  top: var(--top);
  left: -1px;
  right: 0;
  margin-bottom: 40px;
}
.placed-note :deep(.note) {
  padding: 12px;
  background: #f5f8f7;
  border: 1px solid var(--line);
  border-left: 3px solid var(--water);
  border-radius: 0 4px 4px 0;
  display: grid;
  gap: 10px;
}
@container (max-width: 700px) {
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
  .margin.has-note {
    position: sticky;
    bottom: 0;
  }
}
</style>
