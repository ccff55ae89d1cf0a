<script setup lang="ts">
import type { BrokenPlacement } from '~~/core/walk/broken'

defineProps<{ broken: readonly BrokenPlacement[] }>()
defineEmits<{ close: [], despite: [] }>()
const FAULT_WORDS = { 'no-target': 'leads nowhere yet', 'in-bin': 'leads to a file in the bin', 'not-live': 'leads to a page that is not live' }
</script>

<template>
  <VDialog :model-value="true" aria-labelledby="publish-head" @update:model-value="$emit('close')">
    <div class="dialog">
      <h2 id="publish-head">{{ broken.length === 1 ? 'One place leads nowhere' : `${broken.length} places lead nowhere` }}</h2>
      <ul>
        <li v-for="{ placement, fault } in broken" :key="placement.id">The {{ placement.kind }} <b>“{{ placement.label || 'without a label' }}”</b> {{ FAULT_WORDS[fault] }}.</li>
      </ul>
      <p>If you publish now, visitors do not see {{ broken.length === 1 ? 'it' : 'them' }}.</p>
      <div class="acts">
        <button v-focus type="button" class="main" @click="$emit('close')">Go back and mend</button>
        <button type="button" class="plain clay" @click="$emit('despite')">Publish all the same</button>
      </div>
    </div>
  </VDialog>
</template>

<style scoped>
ul { margin: 0; padding-left: 18px; line-height: 1.6; }
</style>
