<script setup lang="ts">
import type { JobLine } from '~~/core/jobs/jobItem'

/** What became of each file of a zip. */
const jobs = useJobs()
const OUTCOME_WORDS: Record<JobLine['outcome'], string> = {
  made: 'in the library',
  edition: 'a new edition',
  skipped: 'left out',
  refused: 'refused',
}
/** What needs attention first. */
const lines = computed(() =>
  [...(jobs.reported?.report ?? [])].sort((a, b) => Number(b.outcome === 'refused') - Number(a.outcome === 'refused')),
)
const MOST = 1000
</script>

<template>
  <VDialog :model-value="!!jobs.reported" max-width="640" aria-labelledby="report-head" @update:model-value="jobs.reported = undefined">
    <div v-if="jobs.reported" class="dialog">
      <h2 id="report-head">What was in “{{ jobs.reported.name }}”</h2>
      <ul>
        <li v-for="(line, index) in lines.slice(0, MOST)" :key="index" :class="line.outcome">
          <code>{{ line.name }}</code><span>{{ OUTCOME_WORDS[line.outcome] }}</span>
          <p v-if="line.why">{{ line.why }}</p>
        </li>
      </ul>
      <p v-if="lines.length > MOST" class="hint">And {{ lines.length - MOST }} more.</p>
      <VBtn v-focus variant="flat" @click="jobs.reported = undefined">Close</VBtn>
    </div>
  </VDialog>
</template>

<style scoped>
ul {
  list-style: none;
  width: 100%;
  margin: 0;
  padding: 0;
  max-height: 380px;
  overflow: auto;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 1px 12px;
  padding: 5px 2px;
  border-bottom: 1px solid var(--line);
}
code {
  overflow-wrap: anywhere;
}
span {
  color: var(--moss);
}
.skipped span {
  color: var(--soft);
}
.refused span {
  color: #9a4420;
  font-weight: 600;
}
p {
  grid-column: 1 / -1;
  color: var(--soft);
  margin: 0;
  font-size: 12.5px;
}
</style>
