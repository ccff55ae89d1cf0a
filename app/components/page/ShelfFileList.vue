<script setup lang="ts">
import { mdiArrowDown, mdiArrowUp, mdiClose } from '@mdi/js'
import { moved } from '~~/core/moved'

/** Files chosen one by one, in an order. */
const props = defineProps<{ ids: readonly string[]; off: string }>()
const emit = defineEmits<{ choose: [ids: string[]] }>()
const library = useLibrary()
const fileOf = (id: string) => library.known.get(id)

const move = (index: number, by: -1 | 1) => emit('choose', moved(props.ids, index, by))
</script>

<template>
  <ol class="chosen">
    <li v-for="(id, index) in ids" :key="id">
      <span class="title" :class="{ gone: !fileOf(id) || fileOf(id)!.deleted }">{{ fileOf(id)?.title ?? 'A file that is gone' }}</span>
      <VBtn color="soft" :disabled="!index" :aria-label="`Move ${fileOf(id)?.title} up`" @click="move(index, -1)">
        <VIcon :icon="mdiArrowUp" size="15" />
      </VBtn>
      <VBtn color="soft" :disabled="index === ids.length - 1" :aria-label="`Move ${fileOf(id)?.title} down`" @click="move(index, 1)">
        <VIcon :icon="mdiArrowDown" size="15" />
      </VBtn>
      <VBtn
        color="soft"
        :aria-label="`Take ${fileOf(id)?.title ?? 'it'} ${off}`"
        @click="
          emit(
            'choose',
            ids.filter(other => other !== id),
          )
        "
      >
        <VIcon :icon="mdiClose" size="15" />
      </VBtn>
    </li>
  </ol>
</template>

<style scoped>
.chosen {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 180px;
  overflow: auto;
  background: #fff;
  border: 1px solid var(--line);
  border-radius: 4px;
}
.chosen li {
  display: flex;
  align-items: center;
  padding-left: 8px;
  min-height: 30px;
}
.chosen li + li {
  border-top: 1px solid #e4eae8;
}
.chosen .v-btn {
  padding: 0 4px;
}
.chosen .v-btn:disabled {
  opacity: 0.35;
}
.title {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.gone {
  text-decoration: line-through;
  color: #9a4420;
}
</style>
