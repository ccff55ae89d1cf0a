<script setup lang="ts">
/** Icons of one line weight, found by what they show. */
defineProps<{ label: string; chosen?: string }>()
const emit = defineEmits<{ choose: [icon: { name: string; path: string }] }>()

const MOST = 40
const q = ref('')
const icons = shallowRef<{ name: string; path: string; words: string }[]>([])
onMounted(async () => (icons.value = (await import('~/editor/icons')).ICONS))
const found = computed(() => {
  const asked = q.value.toLowerCase().trim().split(/\s+/)
  return icons.value.filter(({ name, words }) => asked.every(word => `${name} ${words}`.includes(word))).slice(0, MOST)
})
</script>

<template>
  <VTextField v-model="q" :label="label" type="search" placeholder="Find an icon: arrow, list, kiln…" />
  <div class="icons" role="group" aria-label="Icons found">
    <VBtn
      v-for="{ name, path } in found"
      :key="name"
      color="ink"
      :title="name"
      :aria-label="name"
      :aria-pressed="chosen === name"
      @click="emit('choose', { name, path })"
    >
      <svg viewBox="0 0 24 24" width="20" height="20" aria-hidden="true"><path :d="path" fill="currentColor" /></svg>
    </VBtn>
    <p v-if="icons.length && !found.length" class="hint">No icon for “{{ q }}”. Try another word.</p>
  </div>
</template>

<style scoped>
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
</style>
