<script setup lang="ts">
import { ALIGNMENTS, SPACES, TONES, WIDTHS } from '~~/core/page/schema'
import type { Part } from '~/editor/parts'

/** The settings of what the caret or the selected block lies in: section, columns, row. */
defineProps<{ part: Part }>()
const emit = defineEmits<{ set: [attrs: Record<string, unknown>], columns: [count: number], move: [direction: -1 | 1], dissolve: [], remove: [], leave: [] }>()

const NAMES = { section: 'Section', columns: 'Columns', buttonRow: 'Row of buttons', space: 'Space' }
const TONE_WORDS = { plain: 'Plain', tint: 'Tinted', deep: 'Deep' }
const SPACE_WORDS = { small: 'Little', medium: 'Some', large: 'Much' }
const WIDTH_WORDS = { text: 'As text', wide: 'Wider' }
const ALIGN_WORDS = { left: 'Left', middle: 'Middle', right: 'Right' }
const group = useId()
</script>

<template>
  <section class="part" :aria-label="`Settings of this ${NAMES[part.name].toLowerCase()}`" @keydown.esc.stop="emit('leave')">
    <h2>{{ NAMES[part.name] }}</h2>
    <template v-if="part.name === 'section'">
      <fieldset class="field">
        <legend>Background</legend>
        <div class="choices">
          <label v-for="tone in TONES" :key="tone"><input type="radio" :name="`${group}-tone`" :checked="part.node.attrs.tone === tone" @change="emit('set', { tone })"><span>{{ TONE_WORDS[tone] }}</span></label>
        </div>
      </fieldset>
      <fieldset class="field">
        <legend>Room above and below</legend>
        <div class="choices">
          <label v-for="padding in SPACES" :key="padding"><input type="radio" :name="`${group}-padding`" :checked="part.node.attrs.padding === padding" @change="emit('set', { padding })"><span>{{ SPACE_WORDS[padding] }}</span></label>
        </div>
      </fieldset>
      <fieldset class="field">
        <legend>Width</legend>
        <div class="choices">
          <label v-for="width in WIDTHS" :key="width"><input type="radio" :name="`${group}-width`" :checked="part.node.attrs.width === width" @change="emit('set', { width })"><span>{{ WIDTH_WORDS[width] }}</span></label>
        </div>
      </fieldset>
    </template>
    <fieldset v-else-if="part.name === 'columns'" class="field">
      <legend>How many side by side</legend>
      <div class="choices">
        <label v-for="count in [2, 3, 4]" :key="count"><input type="radio" :name="`${group}-count`" :checked="part.node.childCount === count" @change="emit('columns', count)"><span>{{ count }}</span></label>
      </div>
    </fieldset>
    <fieldset v-else-if="part.name === 'buttonRow'" class="field">
      <legend>Place of the row</legend>
      <div class="choices">
        <label v-for="align in ALIGNMENTS" :key="align"><input type="radio" :name="`${group}-align`" :checked="part.node.attrs.align === align" @change="emit('set', { align })"><span>{{ ALIGN_WORDS[align] }}</span></label>
      </div>
    </fieldset>
    <fieldset v-else class="field">
      <legend>How much</legend>
      <div class="choices">
        <label v-for="size in SPACES" :key="size"><input type="radio" :name="`${group}-size`" :checked="part.node.attrs.size === size" @change="emit('set', { size })"><span>{{ SPACE_WORDS[size] }}</span></label>
      </div>
    </fieldset>
    <div class="acts">
      <button type="button" class="plain" :aria-label="`Move the ${NAMES[part.name].toLowerCase()} up`" @click="emit('move', -1)">Up</button>
      <button type="button" class="plain" :aria-label="`Move the ${NAMES[part.name].toLowerCase()} down`" @click="emit('move', 1)">Down</button>
      <button v-if="part.name !== 'space'" type="button" class="plain" title="What is in it stays where it is" @click="emit('dissolve')">Dissolve</button>
      <button type="button" class="plain" :title="part.name === 'space' ? '' : 'With all that is in it'" @click="emit('remove')">Remove</button>
    </div>
  </section>
</template>

<style scoped>
.part { padding: 10px 12px; background: #F5F8F7; border: 1px solid var(--line); border-left: 3px solid var(--straw); border-radius: 0 4px 4px 0; display: grid; gap: 9px; }
h2 { font-size: 13px; font-weight: 600; }
.acts { display: flex; flex-wrap: wrap; gap: 4px; margin-left: -8px; }
</style>
