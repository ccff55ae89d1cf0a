<script setup lang="ts">
import { MOST_WIDE, type Appearance } from '~~/core/look/appearance'
import { withFill } from '~~/core/look/fillPictures'
import type { Palette } from '~~/core/look/palette'
import { BUTTON_WIDTH_CHOICES, SIDES_CHOICES, WEIGHT_CHOICES } from '~/editor/words'

/** All settings of how a button looks; of a look, or of one button that differs from its look. */
const props = defineProps<{
  appearance: Appearance
  palette: Palette
  /** what this button has otherwise than its look */ overridden?: ReadonlySet<keyof Appearance>
  /** pixels it has where it stands, where that is less than was set */ narrowedTo?: number
}>()
const emit = defineEmits<{ change: [changed: Partial<Appearance>]; reset: [names: (keyof Appearance)[]] }>()

const FIRST_WIDTH = 260
const width = computed(() => (typeof props.appearance.width === 'number' ? 'exact' : props.appearance.width))
const chooseWidth = (choice: 'fit' | 'fill' | 'exact') => emit('change', { width: choice === 'exact' ? FIRST_WIDTH : choice })
</script>

<template>
  <div class="appearance">
    <FieldGroup heading="Icon" :names="['icon']" :overridden="overridden" @reset="emit('reset', $event)">
      <IconFields :value="appearance.icon" :palette="palette" @change="emit('change', { icon: $event })" />
    </FieldGroup>
    <FieldGroup heading="Width and room" :names="['width', 'padding', 'distance']" :overridden="overridden" @reset="emit('reset', $event)">
      <ChoiceField legend="Width" :choices="BUTTON_WIDTH_CHOICES" :value="width" @choose="chooseWidth" />
      <NumberField
        v-if="typeof appearance.width === 'number'"
        words="Exactly"
        :least="40"
        :most="MOST_WIDE"
        :value="appearance.width"
        @change="emit('change', { width: Math.round($event) })"
      />
      <p v-if="narrowedTo" class="hint clay" role="status">
        Where it stands it is {{ narrowedTo }} px wide: there is no more room.
        <VBtn @click="emit('change', { width: 'fill' })">Let it take all the width</VBtn>
      </p>
      <NumberField
        words="Beside words"
        :least="0"
        :most="160"
        :value="appearance.padding.x"
        @change="emit('change', { padding: { ...appearance.padding, x: $event } })"
      />
      <NumberField
        words="Above, below"
        :least="0"
        :most="80"
        :value="appearance.padding.y"
        @change="emit('change', { padding: { ...appearance.padding, y: $event } })"
      />
      <NumberField
        words="To neighbours"
        :least="0"
        :most="80"
        :value="appearance.distance"
        @change="emit('change', { distance: $event })"
      />
    </FieldGroup>
    <FieldGroup heading="Label" :names="['size', 'weight', 'words', 'underline']" :overridden="overridden" @reset="emit('reset', $event)">
      <NumberField words="Size" :least="10" :most="48" :value="appearance.size" @change="emit('change', { size: $event })" />
      <ChoiceField legend="Weight" :choices="WEIGHT_CHOICES" :value="appearance.weight" @choose="emit('change', { weight: $event })" />
      <ColourField words="Colour" :value="appearance.words" :palette="palette" @change="emit('change', { words: $event! })" />
      <VCheckbox
        label="Label underlined"
        :model-value="appearance.underline"
        @update:model-value="emit('change', { underline: !appearance.underline })"
      />
    </FieldGroup>
    <FieldGroup heading="Second line" :names="['second', 'noteColour', 'arrange']" :overridden="overridden" @reset="emit('reset', $event)">
      <SecondLineFields :appearance="appearance" :palette="palette" @change="emit('change', $event)" />
    </FieldGroup>
    <FieldGroup
      heading="Fill, border and shadow"
      :names="['fill', 'border', 'radius', 'shadow']"
      :overridden="overridden"
      @reset="emit('reset', $event)"
    >
      <FillFields :value="appearance.fill" :palette="palette" @change="emit('change', withFill(appearance, $event))" />
      <NumberField
        words="Border"
        :least="0"
        :most="20"
        :value="appearance.border.width"
        @change="emit('change', { border: { ...appearance.border, width: $event } })"
      />
      <template v-if="appearance.border.width">
        <ChoiceField
          legend="Lines of the border"
          :choices="SIDES_CHOICES"
          :value="appearance.border.sides"
          @choose="emit('change', { border: { ...appearance.border, sides: $event } })"
        />
        <ColourField
          words="Colour of the border"
          :value="appearance.border.colour"
          :palette="palette"
          @change="emit('change', { border: { ...appearance.border, colour: $event! } })"
        />
      </template>
      <NumberField words="Corners" :least="0" :most="100" :value="appearance.radius" @change="emit('change', { radius: $event })" />
      <ShadowFields :value="appearance.shadow" :palette="palette" @change="emit('change', { shadow: $event })" />
    </FieldGroup>
    <FieldGroup
      heading="Under the pointer and pressed"
      :names="['hover', 'pressed', 'focus', 'change']"
      :overridden="overridden"
      @reset="emit('reset', $event)"
    >
      <StateFields
        words="Under the pointer"
        :value="appearance.hover"
        :normal="appearance"
        :palette="palette"
        @change="emit('change', { hover: $event })"
      />
      <StateFields
        words="Pressed"
        :value="appearance.pressed"
        :normal="appearance"
        :palette="palette"
        @change="emit('change', { pressed: $event })"
      />
      <ColourField
        words="Mark of the keyboard’s place"
        :value="appearance.focus.colour"
        :palette="palette"
        @change="emit('change', { focus: { ...appearance.focus, colour: $event! } })"
      />
      <NumberField
        words="Its width"
        :least="2"
        :most="8"
        :value="appearance.focus.width"
        @change="emit('change', { focus: { ...appearance.focus, width: $event } })"
      />
      <NumberField
        words="Changes in"
        unit="ms"
        :least="0"
        :most="1000"
        :step="20"
        :value="appearance.change"
        @change="emit('change', { change: $event })"
      />
    </FieldGroup>
    <ContrastLines :appearance="appearance" :palette="palette" @change="emit('change', $event)" />
  </div>
</template>

<style scoped>
.appearance {
  display: grid;
  gap: 9px;
}
</style>
