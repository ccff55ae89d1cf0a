<script setup lang="ts" generic="Name extends string">
/** Settings of one kind under a plain heading that folds them; says where they differ from the look. */
const props = defineProps<{ heading: string; names: readonly Name[]; overridden?: ReadonlySet<Name> }>()
const emit = defineEmits<{ reset: [names: Name[]] }>()
const open = useLocalStorage(`trough-fields-${props.heading}`, false)
const own = computed(() => props.names.filter(name => props.overridden?.has(name)))
</script>

<template>
  <FoldSection v-model:open="open" :heading="heading">
    <template #beside><span v-if="own.length" class="own">only this button</span></template>
    <slot />
    <VBtn v-if="own.length" @click="emit('reset', own)">As the look has it</VBtn>
  </FoldSection>
</template>

<style scoped>
.own {
  margin-left: 8px;
  font-weight: 400;
  font-size: 12px;
  border-left: 4px solid var(--straw);
  padding-left: 6px;
  color: var(--soft);
}
</style>
