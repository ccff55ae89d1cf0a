<script setup lang="ts">
import type { Finding } from '~~/core/walk/finding'

defineProps<{ findings: readonly Finding[] }>()
defineEmits<{ close: []; despite: [] }>()
</script>

<template>
  <VDialog :model-value="true" aria-labelledby="publish-head" @update:model-value="$emit('close')">
    <div class="dialog">
      <h2 id="publish-head">
        {{ findings.length === 1 ? 'One place would stop visitors' : `${findings.length} places would stop visitors` }}
      </h2>
      <ul>
        <li v-for="finding in findings" :key="finding.key">
          <NuxtLink v-if="finding.placement" :to="placeOnPage(finding.page.id, finding.placement)" @click="$emit('close')"
            >“{{ finding.label || 'without a label' }}”</NuxtLink
          >
          {{ finding.words }}
        </li>
      </ul>
      <p>What leads nowhere, visitors do not see if you publish now.</p>
      <div class="acts">
        <VBtn v-focus variant="flat" @click="$emit('close')">Go back and mend</VBtn>
        <VBtn color="clay" @click="$emit('despite')">Publish all the same</VBtn>
      </div>
    </div>
  </VDialog>
</template>

<style scoped>
ul {
  margin: 0;
  padding-left: 18px;
  line-height: 1.6;
}
</style>
