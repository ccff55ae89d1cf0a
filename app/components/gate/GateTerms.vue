<script setup lang="ts">
import type { FileItem } from '~~/core/files/fileItem'
import type { GateItem, GateRule } from '~~/core/gate/gate'

/** What has to be accepted at a gate: a text, a file of the library, or both. */
const props = defineProps<{ gate: GateItem }>()
const emit = defineEmits<{ set: [part: Partial<GateRule>] }>()
const library = useLibrary()
const finding = ref(false)
const terms = computed(() => props.gate.rule.terms)
const file = computed(() => (terms.value?.file ? library.known.get(terms.value.file) : undefined))
watch(
  () => terms.value?.file,
  id => id && void library.meet([id]).catch(() => undefined),
  { immediate: true },
)
function set(part: { text?: string; file?: string | null }) {
  const next = { text: terms.value?.text ?? '', file: terms.value?.file ?? null, ...part }
  // Where neither is left there is nothing to accept; a gate that asks nothing else says so.
  emit('set', { terms: next.text.trim() || next.file ? next : null })
}
function choose(chosen: FileItem) {
  finding.value = false
  set({ file: chosen.id })
}
const open = ref(props.gate.rule.terms !== null)
</script>

<template>
  <FoldSection v-model:open="open" heading="Terms to accept">
    <VTextarea
      :key="gate.id"
      label="The terms"
      rows="4"
      maxlength="20000"
      placeholder="What they agree to, word for word"
      :model-value="terms?.text ?? ''"
      @change="set({ text: ($event.target as HTMLTextAreaElement).value })"
    />
    <div class="file">
      <span v-if="file"
        >and <NuxtLink :to="`/desk/files/${file.id}`">{{ file.title }}</NuxtLink>, with the edition it has then</span
      >
      <VBtn @click="finding = !finding">{{ file ? 'Another file…' : 'A file that holds them…' }}</VBtn>
      <VBtn v-if="file" @click="set({ file: null })">No file</VBtn>
    </div>
    <FileFinder v-if="finding" label="Find the file that holds the terms" @choose="choose" @close="finding = false" />
    <p class="hint">Who accepted, and what it said then, is kept.</p>
  </FoldSection>
</template>

<style scoped>
.file {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
}
</style>
