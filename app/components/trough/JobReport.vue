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
const HEADERS = [
  { title: 'In the zip', key: 'name' },
  { title: 'Became', key: 'outcome' },
]
/** What needs attention first. */
const lines = computed(() =>
  [...(jobs.reported?.report ?? [])].sort((a, b) => Number(b.outcome === 'refused') - Number(a.outcome === 'refused')),
)
</script>

<template>
  <VDialog :model-value="!!jobs.reported" max-width="640" aria-labelledby="report-head" @update:model-value="jobs.reported = undefined">
    <div v-if="jobs.reported" class="dialog">
      <h2 id="report-head">What was in “{{ jobs.reported.name }}”</h2>
      <VDataTableVirtual :headers="HEADERS" :items="lines" item-value="name" height="380" fixed-header class="lines">
        <template #[`item.name`]="{ item }">
          <code>{{ item.name }}</code>
          <span v-if="item.why" class="why">{{ item.why }}</span>
        </template>
        <template #[`item.outcome`]="{ item }">
          <span :class="item.outcome">{{ OUTCOME_WORDS[item.outcome] }}</span>
        </template>
      </VDataTableVirtual>
      <VBtn v-focus variant="flat" @click="jobs.reported = undefined">Close</VBtn>
    </div>
  </VDialog>
</template>

<style scoped>
.lines {
  width: 100%;
}
.lines :deep(td:first-child) {
  white-space: normal !important;
}
code {
  overflow-wrap: anywhere;
}
.why {
  display: block;
  color: var(--soft);
  font-size: 12.5px;
}
.made,
.edition {
  color: var(--moss);
}
.skipped {
  color: var(--soft);
}
.refused {
  color: #9a4420;
  font-weight: 600;
}
</style>
