<script setup lang="ts">
import { mdiTuneVariant } from '@mdi/js'

/** The way to the open folder: a strip for each one above it. Click to go there, drop to move there. */
const emit = defineEmits<{ settings: [] }>()
const rights = useRights()
const listing = useListing()
const folders = useFolders()
const { over, dropOn } = useFolderDrop()

const path = computed(() => folders.tree.pathTo(listing.folder))
const above = computed(() => [{ id: null as string | null, name: 'Library', mark: null }, ...path.value.slice(0, -1)])
</script>

<template>
  <nav v-if="listing.openFolder" class="path" aria-label="Way to this folder">
    <a
      v-for="(folder, index) in above"
      :key="folder.id ?? 'top'"
      v-drop="dropOn(folder.id)"
      class="strip"
      :class="{ over: over === (folder.id ?? 'top') }"
      :style="{ '--step': index }"
      :href="`/desk?folder=${folder.id ?? 'top'}`"
      @click.prevent="listing.open(folder.id)"
      ><span class="mark" :class="folder.mark ?? 'plain-mark'" />{{ folder.name }}</a
    >
    <div class="strip here" :style="{ '--step': above.length }" aria-current="page">
      <span class="mark" :class="listing.openFolder.mark ?? 'plain-mark'" /><b>{{ listing.openFolder.name }}</b>
      <span class="about" :title="listing.openFolder.description">{{ listing.openFolder.description }}</span>
      <VBtn
        v-if="rights.mayIn('edit', listing.openFolder.id)"
        :aria-label="`Settings of ${listing.openFolder.name}`"
        title="Name, mark, description, order"
        @click="emit('settings')"
      >
        <VIcon :icon="mdiTuneVariant" size="16" />
      </VBtn>
    </div>
  </nav>
</template>

<style scoped>
.path {
  display: grid;
  border-bottom: 1px solid var(--line);
}
.strip {
  display: flex;
  align-items: center;
  gap: 8px;
  height: 23px;
  margin-left: calc(var(--step) * 14px);
  padding: 0 10px;
  color: var(--ink);
  text-decoration: none;
  background: #dce4e2;
  border-left: 1px solid #b4c1be;
  border-top: 1px solid #c6d1ce;
  font-size: 12.5px;
  white-space: nowrap;
  min-width: 0;
}
.strip:first-child {
  border-left: 0;
}
a.strip:hover {
  background: #cfdad7;
  text-decoration: underline;
  text-underline-offset: 3px;
}
.strip.over {
  background: #bfdad6;
  box-shadow: inset 0 0 0 2px var(--water);
}
.here {
  height: 32px;
  background: #eff3f2;
  font-size: 13.5px;
}
.here b {
  overflow: hidden;
  text-overflow: ellipsis;
}
.about {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  color: var(--soft);
  font-size: 12.5px;
}
.mark {
  flex: none;
  width: 7px;
  height: 13px;
  border-radius: 1px;
  background: #9dada9;
}
.here .mark {
  height: 18px;
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
</style>
