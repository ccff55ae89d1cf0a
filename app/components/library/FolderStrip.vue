<script setup lang="ts">
import { mdiChevronDown, mdiChevronRight, mdiTuneVariant } from '@mdi/js'
import type { FolderItem } from '~~/core/folders/folderItem'

/** A folder as a strip of the library: goes there, and takes what is dropped on it. */
const props = defineProps<{
  folder: FolderItem
  level: number
  chosen: boolean
  tabbable: boolean
  /** shown as a branch that opens in place */ branch?: boolean
}>()
defineEmits<{ toggle: [event: MouseEvent]; settings: [] }>()
const rights = useRights()
const listing = useListing()
const folders = useFolders()
const renaming = defineModel<boolean>('renaming', { default: false })

const isOpen = computed(() => listing.expanded.has(props.folder.id))
const count = computed(() => folders.filesBelow.get(props.folder.id) ?? 0)

function turn() {
  const next = new Set(listing.expanded)
  if (!next.delete(props.folder.id)) next.add(props.folder.id)
  listing.expanded = next
}
</script>

<template>
  <!-- eslint-disable vue/no-restricted-html-elements -- one of 50,000: what a row is made of is what scrolling costs -->
  <div class="folder-strip" :class="{ chosen }">
    <span class="gutter" role="gridcell"
      ><input
        type="checkbox"
        tabindex="-1"
        :checked="chosen"
        :aria-label="`Choose the folder ${folder.name}`"
        @click.stop="$emit('toggle', $event)"
    /></span>
    <span class="name-cell" role="gridcell" :style="{ '--level': level }">
      <button
        v-if="branch"
        type="button"
        class="turn"
        tabindex="-1"
        :aria-label="isOpen ? `Fold ${folder.name}` : `Unfold ${folder.name}`"
        @click.stop="turn"
      >
        <VIcon :icon="isOpen ? mdiChevronDown : mdiChevronRight" size="18" />
      </button>
      <span class="mark" :class="folder.mark ?? 'plain-mark'" :title="folder.mark ? `Marked ${folder.mark}` : undefined" />
      <FolderName v-if="renaming" :folder="folder" @done="renaming = false" />
      <a
        v-else
        class="name title"
        :href="`/desk?folder=${folder.id}`"
        :tabindex="tabbable ? 0 : -1"
        :title="folder.description || folder.name"
        draggable="false"
        @click.prevent.stop="listing.open(folder.id)"
        >{{ folder.name }}</a
      >
      <span v-if="folder.description && !renaming" class="about">{{ folder.description }}</span>
    </span>
    <span class="count" role="gridcell">{{ counted(count, 'file') }}</span>
    <span role="gridcell"
      ><button
        v-if="rights.mayIn('edit', folder.id)"
        type="button"
        class="plain settings"
        tabindex="-1"
        :aria-label="`Settings of ${folder.name}`"
        title="Name, mark, description, order"
        @click.stop="$emit('settings')"
      >
        <VIcon :icon="mdiTuneVariant" size="16" /></button
    ></span>
  </div>
</template>

<style scoped>
.folder-strip {
  position: relative;
  display: grid;
  grid-template-columns: 28px minmax(0, 1fr) auto 30px;
  align-items: center;
  height: 100%;
  padding-right: 4px;
  background: #eaf0ee;
  border-bottom: 1px solid #cfdad7;
  cursor: grab;
}
.folder-strip:hover,
.folder-strip:focus-within {
  background: #dfe9e6;
}
.folder-strip.chosen {
  background: #cadfdc;
}
.gutter {
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
.folder-strip:hover .gutter input,
.folder-strip.chosen .gutter input,
.folder-strip:focus-within .gutter input {
  opacity: 1;
}
.name-cell {
  display: flex;
  align-items: center;
  gap: 9px;
  min-width: 0;
  padding-left: calc(var(--level) * 18px);
}
.turn {
  display: grid;
  place-items: center;
  width: 22px;
  height: 24px;
  margin: 0 -5px 0 -3px;
  border-radius: 3px;
}
.turn:hover {
  background: #c9d7d4;
}
.mark {
  flex: none;
  width: 7px;
  height: 18px;
  border-radius: 1px;
  background: #9dada9;
}
.water {
  background: var(--water);
}
.clay {
  background: var(--clay);
}
.straw {
  background: var(--straw);
}
.moss {
  background: var(--moss);
}
.name {
  font-weight: 600;
  color: var(--ink);
  text-decoration: none;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  flex: 0 1 auto;
}
.name:hover {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.about {
  flex: 1 1 0;
  min-width: 0;
  color: var(--soft);
  font-size: 12.5px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.count {
  color: var(--soft);
  font-size: 12.5px;
  white-space: nowrap;
  padding-left: 10px;
}
.settings {
  padding: 0 6px;
  opacity: 0;
}
.folder-strip:hover .settings,
.settings:focus-visible {
  opacity: 1;
}
@media (hover: none) {
  .gutter input,
  .settings {
    opacity: 1;
  }
}
</style>
