<script setup lang="ts">
import type { Icon } from '~~/core/look/appearance'
import type { Palette } from '~~/core/look/palette'
import { ICON_PLACE_CHOICES } from '~/editor/words'

/** The icon of a button, found by what it shows. */
const props = defineProps<{ value: Icon | null; palette: Palette }>()
const emit = defineEmits<{ change: [icon: Icon | null] }>()

const choose = ({ name, path }: Pick<Icon, 'name' | 'path'>) =>
  emit('change', { place: 'before', size: 22, gap: 10, colour: null, ...props.value, name, path })
</script>

<template>
  <div class="icon-fields">
    <IconPick :label="`Icon${value ? `: ${value.name}` : ''}`" :chosen="value?.name" @choose="choose" />
    <template v-if="value">
      <ChoiceField
        legend="Where"
        :choices="ICON_PLACE_CHOICES"
        :value="value.place"
        @choose="emit('change', { ...value, place: $event })"
      />
      <NumberField words="Size" :least="8" :most="96" :value="value.size" @change="emit('change', { ...value, size: $event })" />
      <NumberField words="Gap" :least="0" :most="48" :value="value.gap" @change="emit('change', { ...value, gap: $event })" />
      <ColourField
        words="Colour"
        none="As the words"
        :value="value.colour"
        :palette="palette"
        @change="emit('change', { ...value, colour: $event })"
      />
      <VBtn @click="emit('change', null)">No icon</VBtn>
    </template>
  </div>
</template>

<style scoped>
.icon-fields {
  display: grid;
  gap: 8px;
}
.icon-fields > .v-btn {
  justify-self: start;
}
</style>
