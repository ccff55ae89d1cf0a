<script setup lang="ts">
import { FAMILIES } from '~~/core/files/mediaType'
import { LARGEST, MOST_AT_ONCE, type LetterboxAttrs } from '~~/core/letterbox/letterbox'
import { FAMILY_WORDS } from '~/library/filterWords'

/** The settings of the selected letterbox, in the margin. */
const props = defineProps<{ attrs: LetterboxAttrs }>()
const emit = defineEmits<{ change: [attrs: Partial<LetterboxAttrs>]; duplicate: []; move: [direction: -1 | 1]; remove: []; leave: [] }>()

const { speech } = storeToRefs(useSpeech())
const folders = useFolders()
const rights = useRights()
const root = ref<HTMLElement>()
const choosing = ref(false)
const KINDS = FAMILIES.map(value => ({ value, title: FAMILY_WORDS[value] }))
/** A folder that went is no place: what comes in lies at the top then. */
const place = computed(() => (props.attrs.folder && folders.tree.get(props.attrs.folder) ? folders.nameOf(props.attrs.folder) : undefined))

function choose(folder: string) {
  choosing.value = false
  emit('change', { folder })
}
const NUMBERS = [
  ['most', 'Files at once', MOST_AT_ONCE],
  ['largest', 'MB each', LARGEST],
] as const
/** Numbers that cannot be are not taken: the field says so until they can. */
const within = (most: number) => (value: number) => (value >= 1 && value <= most) || `From 1 to ${most.toLocaleString()}.`
function setNumber(name: 'most' | 'largest', most: number, value: number | null) {
  if (value && within(most)(value) === true) emit('change', { [name]: Math.round(value) })
}

defineExpose({ focus: () => root.value?.querySelector<HTMLElement>('input, textarea')?.focus() })
</script>

<template>
  <section
    ref="root"
    class="note"
    aria-label="Settings of this letterbox"
    @keydown.esc.stop="choosing ? (choosing = false) : emit('leave')"
  >
    <VTextField
      label="Called"
      maxlength="200"
      :model-value="attrs.label"
      :placeholder="speech.say('letterbox')"
      @update:model-value="emit('change', { label: $event })"
    />
    <VTextarea
      label="What it asks for"
      rows="2"
      auto-grow
      max-rows="6"
      maxlength="2000"
      :model-value="attrs.text"
      placeholder="Send the signed form back here."
      @update:model-value="emit('change', { text: $event })"
    />
    <div class="place">
      <p>
        What comes in lies {{ place ? `in “${place}”` : 'at the top of the library' }}, and nobody but the desk sees it until you say so.
      </p>
      <div class="ways">
        <VBtn @click="choosing = true">{{ place ? 'Another folder…' : 'In a folder…' }}</VBtn>
        <VBtn v-if="attrs.folder" @click="emit('change', { folder: null })">At the top</VBtn>
        <VBtn v-if="rights.may('contacts')" to="/desk/letterbox">What came in</VBtn>
      </div>
    </div>
    <FoldSection heading="What it takes">
      <VSelect
        label="Kinds"
        :items="KINDS"
        multiple
        :model-value="attrs.kinds"
        placeholder="All kinds"
        persistent-placeholder
        @update:model-value="emit('change', { kinds: $event })"
      />
      <VNumberInput
        v-for="[name, label, most] in NUMBERS"
        :key="name"
        :label="label"
        :min="1"
        :max="most"
        :model-value="attrs[name]"
        :rules="[within(most)]"
        control-variant="stacked"
        @update:model-value="setNumber(name, most, $event)"
      />
    </FoldSection>
    <FolderPickDialog
      v-if="choosing"
      question="Where does what comes in lie?"
      hint="It stays for the desk alone, whoever may have the rest of that folder."
      act="Put it there"
      @choose="choose"
      @close="choosing = false"
    />
    <BlockActs @duplicate="emit('duplicate')" @move="emit('move', $event)" @remove="emit('remove')" />
  </section>
</template>

<style scoped>
.place {
  display: grid;
  gap: 6px;
  line-height: 1.4;
}
.ways {
  display: flex;
  flex-wrap: wrap;
}
</style>
