<script setup lang="ts">
import type { Appearance, StateChange } from '~~/core/look/appearance'
import type { Palette } from '~~/core/look/palette'

/** What differs in one state of a button: each part only where it is asked to. */
const props = defineProps<{ words: string; value: StateChange; normal: Appearance; palette: Palette }>()
const emit = defineEmits<{ change: [state: StateChange] }>()

const PARTS = computed(() =>
  (
    [
      ['fill', 'Another fill'],
      ['words', 'Another colour of the label'],
      ['note', 'Another colour of the second line'],
      ['icon', 'Another colour of the icon'],
      ['border', 'Another border'],
      ['shadow', 'Another shadow'],
    ] as const
  ).filter(([part]) => part !== 'icon' || props.normal.icon || props.value.icon !== undefined),
)
/** Parts that are no more than a colour. */
const COLOURS = { words: 'Label', note: 'Second line', icon: 'Icon', border: 'Border' } as const

function toggle(part: keyof StateChange) {
  const { fill, words, border, shadow, noteColour, icon } = props.normal
  const { [part]: was, ...rest } = props.value
  emit(
    'change',
    was === undefined
      ? {
          ...props.value,
          ...{
            fill: { fill },
            words: { words },
            note: { note: noteColour ?? words },
            icon: { icon: icon?.colour ?? words },
            border: { border: border.colour },
            shadow: { shadow },
          }[part],
        }
      : rest,
  )
}
</script>

<template>
  <fieldset class="state">
    <legend>{{ words }}</legend>
    <template v-for="[part, says] in PARTS" :key="part">
      <VCheckbox :label="`${says}`" :model-value="value[part] !== undefined" @update:model-value="toggle(part)" />
      <div v-if="value[part] !== undefined" class="inner">
        <FillFields v-if="part === 'fill'" :value="value.fill!" :palette="palette" @change="emit('change', { ...value, fill: $event })" />
        <ShadowFields
          v-else-if="part === 'shadow'"
          :value="value.shadow!"
          :palette="palette"
          @change="emit('change', { ...value, shadow: $event })"
        />
        <ColourField
          v-else
          :words="COLOURS[part]"
          :value="value[part]!"
          :palette="palette"
          @change="emit('change', { ...value, [part]: $event! })"
        />
      </div>
    </template>
  </fieldset>
</template>

<style scoped>
.state {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 5px;
  min-width: 0;
}
legend {
  color: var(--soft);
  font-size: 12.5px;
  padding: 0;
  margin-bottom: 3px;
}
.inner {
  border-left: 2px solid var(--line);
  padding-left: 8px;
}
</style>
