<script setup lang="ts">
/** What the selected privacy words are made from, in the margin. */
const emit = defineEmits<{ duplicate: []; move: [direction: -1 | 1]; remove: []; leave: [] }>()
const root = ref<HTMLElement>()

defineExpose({ focus: () => root.value?.querySelector<HTMLElement>('a, button')?.focus() })
</script>

<template>
  <section ref="root" class="note" aria-label="About these privacy words" @keydown.esc.stop="emit('leave')">
    <p>
      Trough says here what it keeps of visitors, as it is set up now: countries and addresses (<NuxtLink to="/desk/setup">Setup</NuxtLink
      >), gates, the letterbox, and how long <NuxtLink to="/desk/contacts">contacts</NuxtLink> stay. Change one of these, and the words
      follow.
    </p>
    <p>Who you are, and under which law, is yours to write above or below. This is no legal advice.</p>
    <BlockActs @duplicate="emit('duplicate')" @move="emit('move', $event)" @remove="emit('remove')" />
  </section>
</template>

<style scoped>
p {
  line-height: 1.45;
}
</style>
