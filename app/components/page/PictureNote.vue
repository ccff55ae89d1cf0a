<script setup lang="ts">
import type { FileItem } from '~~/core/files/fileItem'
import { effectiveAction } from '~~/core/page/destination'
import { firstAction } from '~~/core/page/insert'
import type { PictureAttrs, Target } from '~~/core/page/schema'
import { ACTION_CHOICES, ALIGN_CHOICES, PICTURE_CHOICES } from '~/editor/words'

/** The settings of the selected picture, in the margin. */
const props = defineProps<{ attrs: PictureAttrs; /** the catalogue whose entries are laid out here */ catalogue?: string | null }>()
const emit = defineEmits<{ change: [attrs: Partial<PictureAttrs>]; duplicate: []; move: [direction: -1 | 1]; remove: []; leave: [] }>()

const library = useLibrary()
const root = ref<HTMLElement>()
const choosing = ref<'picture' | 'target' | undefined>(props.attrs.file || props.attrs.field ? undefined : 'picture')

const file = computed(() => (props.attrs.file ? library.known.get(props.attrs.file) : undefined))
const { catalogue: of, filling } = useSample(() => props.catalogue)
const { destination, fault } = useDestination(() => props.attrs.target, filling)
const fields = computed(() =>
  of.value
    ? [
        { value: null, title: 'One picture for all' },
        ...of.value.fields.filter(({ kind }) => kind === 'picture').map(({ id, name }) => ({ value: id, title: name })),
      ]
    : [],
)
const action = computed(() => effectiveAction(props.attrs.action, destination.value))
const can = (name: typeof action.value) => !destination.value || destination.value.actions.includes(name)

function show(chosen: FileItem) {
  choosing.value = undefined
  // What was said of another picture does not hold of this one.
  emit('change', { file: chosen.id, alt: '' })
}

function lead(target: Target) {
  choosing.value = undefined
  emit('change', { target, action: firstAction(target) })
}

defineExpose({ focus: () => root.value?.querySelector<HTMLElement>('input, button')?.focus() })
</script>

<template>
  <section
    ref="root"
    class="note"
    aria-label="Settings of this picture"
    @keydown.esc.stop="choosing ? (choosing = undefined) : emit('leave')"
  >
    <div class="shown">
      <NuxtLink v-if="file" :to="`/desk/files/${file.id}`" class="title">{{ file.title }}</NuxtLink>
      <VSelect
        v-if="fields.length > 1"
        label="Of each entry"
        :items="fields"
        :model-value="attrs.field ?? null"
        @update:model-value="emit('change', { field: $event })"
      />
      <p v-if="!file && !attrs.field" class="hint clay">No picture chosen yet.</p>
      <VBtn v-if="!attrs.field" @click="choosing = choosing === 'picture' ? undefined : 'picture'">
        {{ file ? 'Other picture…' : 'Choose a picture…' }}
      </VBtn>
      <FileFinder
        v-if="choosing === 'picture'"
        class="pop"
        label="Find a picture"
        :types="['picture']"
        @choose="show"
        @close="choosing = undefined"
      />
    </div>
    <VTextarea
      v-if="!attrs.decorative"
      label="What it shows"
      rows="2"
      maxlength="300"
      :model-value="attrs.alt"
      placeholder="Read out to those who do not see it"
      @update:model-value="emit('change', { alt: $event })"
    />
    <p v-if="!attrs.decorative && !attrs.alt && !attrs.field" class="hint clay">Say it in a few words, or tick that it only adorns.</p>
    <VCheckbox
      label="It only adorns"
      :model-value="attrs.decorative"
      @update:model-value="emit('change', { decorative: !attrs.decorative })"
    />
    <VTextField
      label="Words below it"
      maxlength="300"
      :model-value="attrs.caption"
      placeholder="none"
      @update:model-value="emit('change', { caption: $event })"
    />
    <ChoiceField legend="Size" :choices="PICTURE_CHOICES" :value="attrs.size" @choose="emit('change', { size: $event })" />
    <ChoiceField
      v-if="attrs.size === 'small' || attrs.size === 'half'"
      legend="Place"
      :choices="ALIGN_CHOICES"
      :value="attrs.align"
      @choose="emit('change', { align: $event })"
    />
    <div class="leads">
      <p class="hint">
        {{ attrs.target ? `A click leads to “${destination?.title ?? 'nothing that is there'}”.` : 'A click does nothing.' }}
        <span v-if="attrs.target && fault" class="clay">{{ fault }}</span>
      </p>
      <FieldTarget :catalogue="catalogue" :target="attrs.target" @lead="lead" />
      <VBtn @click="choosing = choosing === 'target' ? undefined : 'target'">
        {{ attrs.target ? 'Lead elsewhere…' : 'Lead somewhere…' }}
      </VBtn>
      <VBtn v-if="attrs.target" @click="emit('change', { target: null })">Lead nowhere</VBtn>
      <FileFinder
        v-if="choosing === 'target'"
        class="pop"
        label="Find what this leads to"
        anywhere
        @choose="lead({ kind: 'file', id: $event.id })"
        @lead="lead"
        @close="choosing = undefined"
      />
    </div>
    <ChoiceField
      v-if="attrs.target"
      legend="A click"
      :choices="ACTION_CHOICES"
      :value="action"
      :can="can"
      @choose="emit('change', { action: $event })"
    />
    <BlockActs @duplicate="emit('duplicate')" @move="emit('move', $event)" @remove="emit('remove')" />
  </section>
</template>

<style scoped>
.shown,
.leads {
  position: relative;
}
.title {
  display: block;
  font-weight: 600;
  color: var(--ink);
  overflow-wrap: anywhere;
}
.shown > .v-btn,
.leads > .v-btn {
  margin-left: -8px;
  margin-right: 10px;
}
.pop {
  position: absolute;
  top: 100%;
  right: 0;
  z-index: 20;
  margin-top: 4px;
}
</style>
