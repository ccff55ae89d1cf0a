<script setup lang="ts">
import type { SearchAttrs } from '~~/core/page/schema'
import { searchHref } from '~~/core/search/searchQuery'

/** The settings of the selected search field, in the margin. */
const props = defineProps<{ attrs: SearchAttrs }>()
const emit = defineEmits<{ change: [attrs: Partial<SearchAttrs>]; duplicate: []; move: [direction: -1 | 1]; remove: []; leave: [] }>()

const page = usePage()
const { speech } = storeToRefs(useSpeech())
const root = ref<HTMLElement>()
const choosing = ref(false)
const count = computed(() => page.downloads[props.attrs.placement] ?? 0)
/** where visitors come to that press its key */
const found = computed(() => searchHref({ within: props.attrs.folders }))

function add(id: string) {
  choosing.value = false
  emit('change', { folders: [...new Set([...props.attrs.folders, id])] })
}

defineExpose({ focus: () => root.value?.querySelector<HTMLElement>('input, button')?.focus() })
</script>

<template>
  <section
    ref="root"
    class="note"
    aria-label="Settings of this search field"
    @keydown.esc.stop="choosing ? (choosing = false) : emit('leave')"
  >
    <VTextField
      label="Says of itself"
      maxlength="200"
      :model-value="attrs.label"
      :placeholder="speech.say('searchFiles')"
      @update:model-value="emit('change', { label: $event })"
    />
    <div class="source">
      <p v-if="!attrs.folders.length" class="lists">
        Looks through all files that live pages give visitors, and through folders that are marked for it.
      </p>
      <template v-else>
        <p class="lists">Looks through what visitors may have in</p>
        <FolderList :ids="attrs.folders" off="Look no longer through" @choose="emit('change', { folders: $event })" />
      </template>
      <div class="ways">
        <VBtn @click="choosing = true">{{ attrs.folders.length ? 'One more folder…' : 'Only some folders…' }}</VBtn>
        <VBtn :href="found" target="_blank">See what is found</VBtn>
      </div>
      <FolderPickDialog
        v-if="choosing"
        question="Which folder should it look through?"
        hint="With the folders below it. Only what visitors may have is found."
        act="Look through it"
        @choose="add"
        @close="choosing = false"
      />
    </div>
    <p class="tally" title="Of visitors: what you try while you are signed in is not counted">
      <DownloadsLink
        dimension="placement"
        :of="attrs.placement"
        :count="count"
        :words="count ? `${counted(count, 'download')} of what was found from here` : 'No downloads from here yet'"
      />
    </p>
    <BlockActs @duplicate="emit('duplicate')" @move="emit('move', $event)" @remove="emit('remove')" />
  </section>
</template>

<style scoped>
.source {
  position: relative;
  display: grid;
  gap: 6px;
}
.lists {
  line-height: 1.4;
}
</style>
