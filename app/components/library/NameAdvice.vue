<script setup lang="ts">
import type { NameAdvice } from '~~/core/files/nameAdvice'

/** A better name for a file, offered and never forced. */
defineProps<{ advice: NameAdvice; fileName: string }>()
defineEmits<{ take: [fileName: string] }>()
const declined = useLocalStorage<string[]>('trough-names-kept', [])
</script>

<template>
  <section v-if="!declined.includes(fileName)" class="name-advice" :class="{ mild: advice.mild }" aria-label="A better name">
    <p>
      Visitors save it as <code>{{ fileName }}</code>.
    </p>
    <ul>
      <li v-for="reason in advice.reasons" :key="reason">{{ reason }}</li>
    </ul>
    <span class="acts">
      <VBtn variant="outlined" @click="$emit('take', advice.better)">
        Call it <code>{{ advice.better }}</code>
      </VBtn>
      <VBtn @click="declined = [...declined.slice(-200), fileName]">Keep its name</VBtn>
    </span>
  </section>
</template>

<style scoped>
.name-advice {
  display: grid;
  gap: 6px;
  padding: 10px 12px;
  background: #fbf3dc;
  border: 1px solid var(--straw);
  border-radius: 4px;
}
.mild {
  padding: 0 0 10px;
  background: none;
  border: 0;
  border-bottom: 1px solid var(--line);
  border-radius: 0;
}
ul {
  margin: 0;
  padding-left: 16px;
  line-height: 1.45;
}
code {
  overflow-wrap: anywhere;
}
.v-btn {
  display: inline-block;
  white-space: normal;
  text-align: left;
  padding-block: 4px;
}
</style>
