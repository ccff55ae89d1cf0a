<script setup lang="ts">
import type { FileItem } from '~~/core/files/fileItem'
import { gateOf } from '~~/core/gate/standing'
import type { ShelfSource } from '~~/core/shelf/shelfSource'

/**
 * Who may have what a shelf lists. It is said of the folder or of the files themselves: said of the shelf alone, they would be had by their
 * own addresses all the same.
 */
const props = defineProps<{ source: ShelfSource; files: readonly FileItem[] }>()
const folders = useFolders()
const selection = useSelection()

const folder = computed(() => (props.source.kind === 'folder' ? folders.tree.get(props.source.id) : undefined))
const ids = computed(() => (props.source.kind === 'files' ? props.source.ids : []))
const chosen = computed(() => props.files.filter(({ id }) => ids.value.includes(id)))
/** what is said of all of them; undefined where they differ */
const said = computed(() => {
  if (folder.value) return folder.value.gate
  const all = new Set(chosen.value.map(({ gate }) => gate))
  return all.size > 1 ? undefined : ([...all][0] ?? null)
})
const above = computed(() =>
  folder.value
    ? gateOf({ gate: null, folder: folder.value.parent }, folders.tree)
    : gateOf({ gate: null, folder: chosen.value[0]?.folder ?? null }, folders.tree),
)
const title = computed(() => folder.value?.name ?? chosen.value[0]?.title ?? '')

function set(gate: string | null) {
  void selection.attempt(() =>
    folder.value ? folders.change(folder.value.id, { gate }) : selection.describe({ files: [...ids.value], gate }),
  )
}
</script>

<template>
  <div v-if="folder || chosen.length" class="shelf-gate">
    <GateSelect :model-value="said ?? null" label="Who may have these" :title="title" :above="above" @update:model-value="set" />
    <p class="hint">
      <template v-if="said === undefined">They differ now: a choice holds for all of them. </template>
      {{ folder ? 'Said of the folder, with all below it' : 'Said of the files' }}, wherever they are led to.
    </p>
  </div>
  <p v-else-if="source.kind === 'found'" class="hint">Who may have what is found is said of each file, or of its folder.</p>
</template>

<style scoped>
.shelf-gate {
  display: grid;
  gap: 4px;
}
</style>
