<script setup lang="ts">
import { mdiArrowRightThin, mdiLockOutline, mdiTrayArrowDown } from '@mdi/js'
import type { FoundFile } from '~~/core/files/fileItem'
import { gatesOf } from '~~/core/gate/standing'
import { formatExactSize, formatSize } from '~~/core/files/size'
import { COLUMNS, type ColumnKey } from '~/library/fileColumns'

/** A file as a row of the library. */
const props = defineProps<{
  file: FoundFile
  columns: ColumnKey[]
  /** no columns: the facts stand below the title */ narrow: boolean
  level: number
  chosen: boolean
  tabbable: boolean
}>()
defineEmits<{ toggle: [event: MouseEvent] }>()
const placer = usePlacer()
const folders = useFolders()
const selection = useSelection()
const library = useLibrary()
const gates = useGates()
const behind = computed(() => gatesOf(props.file, folders.tree))
const route = useRoute()

const open = computed(() => route.path === `/desk/files/${props.file.id}`)
const titleOf = (key: ColumnKey) =>
  (
    ({ size: formatExactSize(props.file.size), changed: longDate(props.file.changed), added: longDate(props.file.created) }) as Partial<
      Record<ColumnKey, string>
    >
  )[key] ?? COLUMNS[key].text(props.file, folders.nameOf)

const bundleDrop = useBundleDrop(() => props.file)
const editionDrop = useEditionDrop(() => props.file)
const drop = computed(() => (props.file.bundle ? bundleDrop : editionDrop))
const over = computed(() => drop.value.over.value)

function place() {
  library.learn([props.file])
  placer.current?.place(props.file)
}
</script>

<template>
  <!-- eslint-disable vue/no-restricted-html-elements -- one of 50,000: what a row is made of is what scrolling costs -->
  <div v-drop="file.deleted ? undefined : drop.target" class="file-row" :class="{ open, chosen, over, binned: file.deleted }">
    <span class="gutter" role="gridcell"
      ><input type="checkbox" tabindex="-1" :checked="chosen" :aria-label="`Choose ${file.title}`" @click.stop="$emit('toggle', $event)"
    /></span>
    <span class="title-cell" role="gridcell" :style="{ '--level': level }">
      <TypeTag :tag="file.tag" :family="file.family" />
      <span class="words">
        <span class="line">
          <NuxtLink
            :to="`/desk/files/${file.id}`"
            class="title"
            :tabindex="tabbable ? 0 : -1"
            :title="`${file.title}\n${file.fileName}`"
            draggable="false"
            >{{ file.title }}</NuxtLink
          >
          <span v-if="file.match?.by === 'slip'" class="nearly" title="Nearly what you typed">nearly</span>
          <span v-for="tag in file.tags.slice(0, 2)" :key="tag" class="own-tag">{{ tag }}</span>
          <span v-if="behind.length" class="gated" :title="`Behind the gate ${behind.map(gates.nameOf).join(', ')}`"
            ><VIcon :icon="mdiLockOutline" size="14" /><span class="tr-spoken">not for everyone</span></span
          >
          <span v-if="file.bundle" class="bundled" title="Put together from other files as it is downloaded">bundle</span>
          <span v-if="file.waits" class="waits" title="A newer edition waits">newer</span>
          <span
            v-if="file.remarks.length || file.reading === 'failed'"
            class="mark"
            :title="[...file.remarks, file.readingError ?? ''].join(' ')"
            ><span class="tr-spoken">Needs a look.</span>!</span
          >
        </span>
        <span v-if="narrow && file.match?.by !== 'inside'" class="facts"
          >{{ formatSize(file.size) }}, {{ shortDate(file.changed) }}{{ file.uses ? `, ${counted(file.uses, 'place')}` : '' }}</span
        >
      </span>
    </span>
    <span v-if="file.match?.by === 'inside'" class="inside" role="gridcell"
      ><PassageLine :part="file.match.part" :passage="file.match.passage"
    /></span>
    <span
      v-for="key in columns"
      :key="key"
      role="gridcell"
      class="cell"
      :class="[key, { num: COLUMNS[key].numeric, not: key === 'used' && !file.uses }]"
      :title="titleOf(key)"
      >{{ COLUMNS[key].text(file, folders.nameOf) }}</span
    >
    <span v-if="over && !file.bundle" class="as-next">its next edition</span>
    <span class="acts" role="gridcell">
      <button
        v-if="file.deleted"
        type="button"
        class="plain"
        tabindex="-1"
        :aria-label="`Restore ${file.title}`"
        @click.stop="selection.attempt(() => selection.restore({ files: [file.id], folders: [] }))"
      >
        Restore
      </button>
      <template v-else>
        <button
          type="button"
          class="plain"
          tabindex="-1"
          :aria-label="`Pick up ${file.title}`"
          title="Pick up into the trough (T)"
          @click.stop="selection.attempt(() => selection.pickUp(selection.around('files', file.id)))"
        >
          <VIcon :icon="mdiTrayArrowDown" size="16" />
        </button>
        <button
          v-if="placer.current"
          type="button"
          class="plain"
          tabindex="-1"
          :aria-label="`Place ${file.title} on the page`"
          title="Place on the page (P)"
          @click.stop="place"
        >
          Place<VIcon :icon="mdiArrowRightThin" size="18" />
        </button>
      </template>
    </span>
  </div>
</template>

<style scoped>
.file-row {
  position: relative;
  display: grid;
  grid-template-columns: var(--cols);
  gap: 0 10px;
  align-items: center;
  height: 100%;
  padding-right: 10px;
  border-bottom: 1px solid #e4eae8;
  background: #fff;
  cursor: grab;
}
.file-row:hover,
.file-row:focus-within {
  background: #f1f6f5;
}
.file-row.open {
  box-shadow: inset 3px 0 var(--water);
}
.file-row.over {
  background: #cfe2df;
  box-shadow: inset 0 0 0 2px var(--water);
}
.file-row.chosen {
  background: #d9e8e6;
}
.as-next {
  position: absolute;
  right: 8px;
  padding: 0 8px;
  line-height: 20px;
  color: #fff;
  background: var(--water);
  border-radius: 3px;
  font-size: 12px;
  pointer-events: none;
}
.gutter {
  grid-row: 1 / -1;
  display: grid;
  place-items: center;
  align-self: stretch;
  cursor: default;
}
.gutter input {
  width: 15px;
  height: 15px;
  margin: 0;
  accent-color: var(--water);
  opacity: 0;
}
.file-row:hover .gutter input,
.file-row.chosen .gutter input,
.file-row:focus-within .gutter input {
  opacity: 1;
}
.title-cell {
  display: flex;
  gap: 10px;
  align-items: center;
  min-width: 0;
  padding-left: calc(var(--level) * 18px);
}
.file-row:has(.inside) {
  grid-template-rows: 28px 20px;
  align-content: center;
}
.inside {
  grid-row: 2;
  grid-column: 2 / -1;
  display: flex;
  padding-left: 52px;
  min-width: 0;
}
.words {
  display: grid;
  min-width: 0;
  flex: 1;
}
.facts {
  color: var(--soft);
  font-size: 12px;
  line-height: 1.3;
}
.line {
  display: flex;
  align-items: center;
  gap: 6px;
  min-width: 0;
}
.title {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  color: var(--ink);
  text-decoration: none;
}
.title:hover {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.own-tag,
.nearly,
.waits,
.gated {
  color: var(--soft);
  line-height: 1;
}
.bundled {
  flex: none;
  max-width: 90px;
  padding: 0 5px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 11.5px;
  line-height: 16px;
  border: 1px solid #a9b7b3;
  border-radius: 3px;
  color: var(--soft);
}
.nearly {
  border-style: dashed;
}
.waits {
  border-color: #8a6a12;
  color: #6b520b;
  background: #fbf3dc;
}
.mark {
  flex: none;
  width: 16px;
  text-align: center;
  font-weight: 700;
  line-height: 16px;
  color: #fff;
  background: #9a4420;
  border-radius: 3px;
}
.cell {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 12.5px;
  color: var(--soft);
}
.size {
  font:
    12px 'IBM Plex Mono',
    monospace;
  color: var(--ink);
}
.used {
  color: var(--ink);
}
.not {
  color: var(--soft);
}
.num {
  text-align: right;
}
.acts {
  position: absolute;
  right: 4px;
  display: flex;
  gap: 2px;
  padding-left: 14px;
  background: linear-gradient(90deg, transparent, #f1f6f5 14px);
  opacity: 0;
}
.chosen .acts {
  background: linear-gradient(90deg, transparent, #d9e8e6 14px);
}
.file-row:hover .acts,
.acts:focus-within {
  opacity: 1;
}
@container (max-width: 560px) {
  .own-tag {
    display: none;
  }
}
@media (hover: none) {
  .gutter input {
    opacity: 1;
  }
  .acts {
    display: none;
  }
}
</style>
