<script setup lang="ts" generic="Name extends string">
import { mdiArrowDown, mdiArrowUp } from '@mdi/js'
import { moved } from '~~/core/moved'

/** Some of several things, in an order: what is ticked comes first, as it is to stand. */
const props = defineProps<{ legend: string; names: readonly Name[]; words: Record<Name, string>; chosen: readonly Name[]; always?: Name }>()
const emit = defineEmits<{ choose: [chosen: Name[]] }>()

const rows = computed(() => [...props.chosen, ...props.names.filter(name => !props.chosen.includes(name))])

function tick(name: Name, on: boolean | null) {
  emit('choose', on ? [...props.chosen, name] : props.chosen.filter(other => other !== name))
}
const move = (index: number, by: -1 | 1) => emit('choose', moved(props.chosen, index, by))
</script>

<template>
  <fieldset class="ordered">
    <legend>{{ legend }}</legend>
    <ol>
      <li v-for="(name, index) in rows" :key="name">
        <VCheckbox
          :label="words[name]"
          :model-value="chosen.includes(name)"
          :disabled="name === always"
          @update:model-value="tick(name, $event)"
        />
        <template v-if="index < chosen.length && chosen.length > 1">
          <VBtn color="soft" :disabled="!index" :aria-label="`Move ${words[name]} up`" @click="move(index, -1)">
            <VIcon :icon="mdiArrowUp" size="15" />
          </VBtn>
          <VBtn color="soft" :disabled="index === chosen.length - 1" :aria-label="`Move ${words[name]} down`" @click="move(index, 1)">
            <VIcon :icon="mdiArrowDown" size="15" />
          </VBtn>
        </template>
      </li>
    </ol>
  </fieldset>
</template>

<style scoped>
.ordered {
  border: 0;
  margin: 0;
  padding: 0;
  min-width: 0;
}
legend {
  padding: 0;
  color: var(--soft);
  font-size: 12.5px;
}
ol {
  list-style: none;
  margin: 2px 0 0;
  padding: 0;
  background: #fff;
  border: 1px solid var(--line);
  border-radius: 4px;
}
li {
  display: flex;
  align-items: center;
  min-height: 30px;
  padding-left: 8px;
}
li + li {
  border-top: 1px solid #e4eae8;
}
li > :first-child {
  flex: 1;
}
.v-btn {
  padding: 0 4px;
}
.v-btn:disabled {
  opacity: 0.35;
}
</style>
