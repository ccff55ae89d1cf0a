<script setup lang="ts">
import type { Icon } from '~~/core/look/appearance'
import type { Palette } from '~~/core/look/palette'
import { ICON_PLACE_CHOICES } from '~/editor/words'

/** The icon of a button, found by what it shows. */
const props = defineProps<{ value: Icon | null; palette: Palette }>()
const emit = defineEmits<{ change: [icon: Icon | null] }>()

const MOST = 40
const q = ref('')
const icons = shallowRef<{ name: string; path: string; words: string }[]>([])
onMounted(async () => (icons.value = (await import('~/editor/icons')).ICONS))
const found = computed(() => {
  const asked = q.value.toLowerCase().trim().split(/\s+/)
  return icons.value.filter(({ name, words }) => asked.every(word => `${name} ${words}`.includes(word))).slice(0, MOST)
})

const choose = ({ name, path }: { name: string; path: string }) =>
  emit('change', { place: 'before', size: 22, gap: 10, colour: null, ...props.value, name, path })
</script>

<template>
  <div class="icon-fields">
    <VTextField v-model="q" :label="`Icon${value ? `: ${value.name}` : ''}`" type="search" placeholder="Find an icon: arrow, list, kiln…" />
    <div class="icons" role="group" aria-label="Icons found">
      <VBtn
        v-for="icon in found"
        :key="icon.name"
        color="ink"
        :title="icon.name"
        :aria-label="icon.name"
        :aria-pressed="value?.name === icon.name"
        @click="choose(icon)"
      >
        <svg viewBox="0 0 24 24" width="20" height="20" aria-hidden="true"><path :d="icon.path" fill="currentColor" /></svg>
      </VBtn>
      <p v-if="icons.length && !found.length" class="hint">No icon for “{{ q }}”. Try another word.</p>
    </div>
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
.icons {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(30px, 1fr));
  gap: 2px;
  max-height: 132px;
  overflow: auto;
}
.icons button {
  height: 30px;
  padding: 0;
}
.icons button[aria-pressed='true'] {
  background: #cfe2df;
  box-shadow: inset 0 -2px var(--water);
}
.icons .hint {
  grid-column: 1 / -1;
}
.icon-fields > .v-btn {
  justify-self: start;
}
</style>
