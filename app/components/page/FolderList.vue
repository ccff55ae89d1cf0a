<script setup lang="ts">
import { mdiClose } from '@mdi/js'

/** Folders that were chosen, each to be taken off. @param off what taking it off means, before its name */
defineProps<{ ids: readonly string[]; off: string }>()
const emit = defineEmits<{ choose: [ids: string[]] }>()
const folders = useFolders()
</script>

<template>
  <ul class="chosen">
    <li v-for="id in ids" :key="id">
      <span class="title" :class="{ gone: !folders.tree.get(id) }">{{ folders.nameOf(id) }}</span>
      <VBtn
        color="soft"
        :aria-label="`${off} ${folders.nameOf(id)}`"
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
  </ul>
</template>

<style scoped>
.chosen {
  list-style: none;
  margin: 0;
  padding: 0;
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
