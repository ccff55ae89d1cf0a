<script setup lang="ts">
import type { FileItem } from '~~/core/files/fileItem'
import type { Fill } from '~~/core/look/appearance'
import type { Palette } from '~~/core/look/palette'
import { FILL_CHOICES } from '~/editor/words'

/** What a button is filled with. */
const props = defineProps<{ value: Fill; palette: Palette }>()
const emit = defineEmits<{ change: [fill: Fill] }>()

const MOST_STOPS = 5
const firstColour = computed(() =>
  props.value.kind === 'plain' || props.value.kind === 'picture'
    ? props.value.colour
    : props.value.kind === 'gradient'
      ? props.value.stops[0]!.colour
      : 'accent',
)
/** a picture is being chosen: until it is, the fill stays as it was */
const choosing = ref(false)

function choose(kind: Fill['kind']) {
  choosing.value = kind === 'picture'
  if (kind === 'none') emit('change', { kind })
  else if (kind === 'plain') emit('change', { kind, colour: firstColour.value })
  else if (kind === 'gradient')
    emit('change', {
      kind,
      angle: 180,
      stops: [
        { colour: firstColour.value, at: 0 },
        { colour: firstColour.value === 'accentDark' ? 'accent' : 'accentDark', at: 100 },
      ],
    })
}

/** Enough veil to tell the words from most pictures. */
const FIRST_VEIL = 60
const { known, learn } = useLibrary()
function fillWith(file: FileItem) {
  choosing.value = false
  learn([file])
  emit('change', {
    kind: 'picture',
    file: file.id,
    colour: firstColour.value,
    veil: props.value.kind === 'picture' ? props.value.veil : FIRST_VEIL,
  })
}
const shown = computed(() => (props.value.kind === 'picture' ? known.get(props.value.file) : undefined))

type Gradient = Extract<Fill, { kind: 'gradient' }>
const gradient = computed(() => props.value as Gradient)
const changeStop = (index: number, change: Partial<Gradient['stops'][number]>) =>
  emit('change', { ...gradient.value, stops: gradient.value.stops.map((stop, at) => (at === index ? { ...stop, ...change } : stop)) })
</script>

<template>
  <div class="fill-fields">
    <ChoiceField legend="Fill" :choices="FILL_CHOICES" :value="choosing ? 'picture' : value.kind" @choose="choose" />
    <ColourField
      v-if="value.kind === 'plain'"
      words="Colour of the fill"
      :value="value.colour"
      :palette="palette"
      @change="emit('change', { kind: 'plain', colour: $event! })"
    />
    <template v-else-if="value.kind === 'gradient'">
      <NumberField
        words="Direction"
        unit="°"
        :least="0"
        :most="360"
        :step="5"
        :value="value.angle"
        @change="emit('change', { ...value, angle: $event })"
      />
      <div v-for="(stop, index) in value.stops" :key="index" class="stop">
        <ColourField
          :words="`Stop ${index + 1}`"
          :value="stop.colour"
          :palette="palette"
          @change="changeStop(index, { colour: $event! })"
        />
        <NumberField words="At" unit="%" :least="0" :most="100" :value="stop.at" @change="changeStop(index, { at: $event })" />
        <VBtn v-if="value.stops.length > 2" @click="emit('change', { ...value, stops: value.stops.filter((_, at) => at !== index) })">
          Leave out stop {{ index + 1 }}
        </VBtn>
      </div>
      <VBtn
        v-if="value.stops.length < MOST_STOPS"
        @click="emit('change', { ...value, stops: [...value.stops, { colour: firstColour, at: 100 }] })"
      >
        Another stop
      </VBtn>
    </template>
    <template v-else-if="value.kind === 'picture' && !choosing">
      <p class="shown">
        <template v-if="shown && !shown.deleted"
          ><FilePicture :file="shown" class="thumb" /><b>{{ shown.title }}</b></template
        >
        <span v-else class="hint clay">The picture is gone; its veil is seen instead.</span>
        <VBtn @click="choosing = true">Another…</VBtn>
      </p>
      <NumberField
        words="Veil"
        unit="%"
        :least="0"
        :most="100"
        :step="5"
        :value="value.veil"
        @change="emit('change', { ...value, veil: $event })"
      />
      <ColourField
        words="Colour of the veil"
        :value="value.colour"
        :palette="palette"
        @change="emit('change', { ...value, colour: $event! })"
      />
    </template>
    <FileFinder v-if="choosing" label="Find a picture for the fill" :types="['picture']" @choose="fillWith" @close="choosing = false" />
  </div>
</template>

<style scoped>
.fill-fields {
  display: grid;
  gap: 8px;
  justify-items: stretch;
}
.stop {
  display: grid;
  gap: 4px;
  border-left: 2px solid var(--line);
  padding-left: 8px;
}
.v-btn {
  justify-self: start;
}
.shown {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
}
.shown b {
  font-weight: 500;
  min-width: 0;
  overflow-wrap: anywhere;
}
.thumb {
  width: 48px;
  height: 36px;
}
.fill-fields :deep(.finder) {
  width: 100%;
}
</style>
