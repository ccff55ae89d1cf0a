<script setup lang="ts" generic="Name extends string">
/** Settings of one kind under a plain heading that folds them; says where they differ from the look. */
const props = defineProps<{ heading: string; names: readonly Name[]; overridden?: ReadonlySet<Name> }>()
const emit = defineEmits<{ reset: [names: Name[]] }>()
const open = useLocalStorage(`trough-fields-${props.heading}`, false)
const own = computed(() => props.names.filter(name => props.overridden?.has(name)))
</script>

<template>
  <details :open="open" @toggle="open = ($event.target as HTMLDetailsElement).open">
    <summary>{{ heading }}<span v-if="own.length" class="own">only this button</span></summary>
    <div v-if="open" class="fields">
      <slot />
      <button v-if="own.length" type="button" class="plain" @click="emit('reset', own)">As the look has it</button>
    </div>
  </details>
</template>

<style scoped>
details {
  border-top: 1px solid var(--line);
  padding-top: 7px;
}
summary {
  cursor: pointer;
  font-weight: 600;
}
.own {
  margin-left: 8px;
  font-weight: 400;
  font-size: 12px;
  border-left: 4px solid var(--straw);
  padding-left: 6px;
  color: var(--soft);
}
.fields {
  display: grid;
  gap: 9px;
  padding-top: 8px;
}
.plain {
  justify-self: start;
}
</style>
