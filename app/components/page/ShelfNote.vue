<script setup lang="ts">
import type { ShelfAttrs } from '~~/core/page/schema'
import { foldersOf } from '~~/core/shelf/shelfSource'
import { ACTION_CHOICES } from '~/editor/words'

/** The settings of the selected shelf, in the margin. */
const props = defineProps<{ attrs: ShelfAttrs }>()
const emit = defineEmits<{ change: [attrs: Partial<ShelfAttrs>]; duplicate: []; move: [direction: -1 | 1]; remove: []; leave: [] }>()

const folders = useFolders()
const page = usePage()
const rights = useRights()
const root = ref<HTMLElement>()
const source = useTemplateRef('source')
const { files } = useShelf(computed(() => props.attrs.source))
const count = computed(() => page.downloads[props.attrs.placement] ?? 0)
/** what the zip is called where nothing is said */
const usualName = computed(() => {
  const [folder, ...more] = foldersOf(props.attrs.source)
  return folder && !more.length ? folders.nameOf(folder) : page.current?.title
})

defineExpose({ focus: () => root.value?.querySelector<HTMLElement>('input, button')?.focus() })
</script>

<template>
  <section ref="root" class="note" aria-label="Settings of this shelf" @keydown.esc.stop="source?.choosing ? source.stop() : emit('leave')">
    <ShelfSource ref="source" :source="attrs.source" :files="files" @list="emit('change', { source: $event })" />
    <ShelfShown :attrs="attrs" @change="emit('change', $event)" />
    <VCheckbox
      label="With a field that looks through it"
      :model-value="!!attrs.search"
      @update:model-value="emit('change', { search: !attrs.search })"
    />
    <div class="field">
      <ChoiceField
        legend="A click on a file"
        :choices="ACTION_CHOICES"
        :value="attrs.action"
        @choose="emit('change', { action: $event })"
      />
      <p class="hint">Types that browsers cannot show safely are saved, whatever you choose.</p>
    </div>

    <VCheckbox
      label="Visitors may take several as one zip"
      :model-value="attrs.pick"
      @update:model-value="emit('change', { pick: $event })"
    />
    <VTextField
      v-if="attrs.pick"
      label="Name of the zip"
      maxlength="200"
      :model-value="attrs.zipName"
      :placeholder="usualName"
      @update:model-value="emit('change', { zipName: $event })"
    />

    <ShelfGate v-if="attrs.source && rights.may('gates')" :source="attrs.source" :files="files" />
    <p class="tally">
      <DownloadsLink
        dimension="placement"
        :of="attrs.placement"
        :count="count"
        :words="count ? `${counted(count, 'download')} from here` : 'No downloads from here yet'"
      />
    </p>
    <BlockActs @duplicate="emit('duplicate')" @move="emit('move', $event)" @remove="emit('remove')" />
  </section>
</template>

<style scoped>
.tally {
  color: var(--soft);
  font-size: 12.5px;
}
</style>
