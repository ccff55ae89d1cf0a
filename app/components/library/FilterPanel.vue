<script setup lang="ts">
import { FAMILIES, type Family } from '~~/core/files/mediaType'
import { FAMILY_WORDS } from '~/library/filterWords'

/** Everything a list can be narrowed by; each takes effect at once. */
defineEmits<{ close: [] }>()
const listing = useListing()
const tags = ref<{ tag: string; files: number }[]>([])
const MEGABYTE = 1_000_000

onMounted(async () => {
  tags.value = (await api<{ items: typeof tags.value }>('/tags')).items
})

function turnFamily(family: Family) {
  const { type } = listing.filters
  listing.filters.type = type.includes(family) ? type.filter(other => other !== family) : [...type, family]
}

function addTag(event: Event) {
  const field = event.target as HTMLSelectElement
  if (field.value) listing.filters.tag = [...new Set([...listing.filters.tag, field.value])]
  field.value = ''
}

const inMegabytes = (bytes: number | null) => (bytes === null ? '' : String(bytes / MEGABYTE))
function setSize(key: 'least' | 'most', event: Event) {
  const value = (event.target as HTMLInputElement).valueAsNumber
  listing.filters[key] = Number.isFinite(value) && value >= 0 ? Math.round(value * MEGABYTE) : null
}
</script>

<template>
  <div class="panel" role="group" aria-label="Narrow down">
    <fieldset class="kinds">
      <legend>Kind</legend>
      <label v-for="family in FAMILIES" :key="family"
        ><input type="checkbox" :checked="listing.filters.type.includes(family)" @change="turnFamily(family)" /><span>{{
          FAMILY_WORDS[family]
        }}</span></label
      >
    </fieldset>
    <label class="field"
      ><span>Use</span>
      <select v-model="listing.filters.used">
        <option value="">all</option>
        <option value="yes">used on a page</option>
        <option value="no">not used</option>
      </select>
    </label>
    <label class="field"
      ><span>Tag</span>
      <select :disabled="!tags.length" @change="addTag">
        <option value="">{{ tags.length ? 'choose…' : 'no tags yet' }}</option>
        <option v-for="{ tag, files } in tags" :key="tag" :value="tag">{{ tag }} ({{ files }})</option>
      </select>
    </label>
    <label class="field"
      ><span>State</span>
      <select v-model="listing.filters.reading">
        <option value="">all</option>
        <option value="failed">could not be read</option>
        <option value="waiting">still to be read</option>
      </select>
    </label>
    <fieldset class="pair">
      <legend>Changed</legend>
      <label><span>from</span><input v-model="listing.filters.changedFrom" type="date" /></label
      ><label><span>to</span><input v-model="listing.filters.changedTo" type="date" /></label>
    </fieldset>
    <fieldset class="pair">
      <legend>Added</legend>
      <label><span>from</span><input v-model="listing.filters.addedFrom" type="date" /></label
      ><label><span>to</span><input v-model="listing.filters.addedTo" type="date" /></label>
    </fieldset>
    <fieldset class="pair">
      <legend>Size in MB</legend>
      <label
        ><span>from</span
        ><VTextField
          class="small"
          type="number"
          min="0"
          step="any"
          :model-value="inMegabytes(listing.filters.least)"
          @change="setSize('least', $event)"
      /></label>
      <label
        ><span>to</span
        ><VTextField
          class="small"
          type="number"
          min="0"
          step="any"
          :model-value="inMegabytes(listing.filters.most)"
          @change="setSize('most', $event)"
      /></label>
    </fieldset>
    <label class="check"><input v-model="listing.filters.waits" type="checkbox" /> Newer edition waiting</label>
    <button type="button" class="plain done" @click="$emit('close')">Close</button>
  </div>
</template>

<style scoped>
.panel {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 16px;
  align-items: end;
  padding: 8px 12px 12px;
  background: #f5f8f7;
  border-top: 1px solid var(--line);
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  min-width: 0;
}
legend,
.field > span {
  color: var(--soft);
  font-size: 12.5px;
  padding: 0 0 3px;
}
.kinds {
  width: 100%;
}
.kinds label {
  position: relative;
  display: inline-block;
  margin: 0 4px 4px 0;
}
.kinds input {
  position: absolute;
  opacity: 0;
  inset: 0;
  margin: 0;
}
.kinds span {
  display: block;
  padding: 0 9px;
  line-height: 25px;
  background: #fff;
  border: 1px solid #95a39f;
  border-radius: 4px;
}
.kinds input:checked + span {
  background: #cfe2df;
  border-color: var(--water);
  font-weight: 600;
}
.kinds input:focus-visible + span {
  outline: 2px solid var(--water);
  outline-offset: 1px;
}
.pair {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 6px;
  align-items: center;
  width: 100%;
}
.pair legend {
  float: left;
  width: 76px;
  padding: 0;
}
.pair label {
  display: flex;
  align-items: center;
  gap: 4px;
}
.pair span {
  color: var(--soft);
  font-size: 12.5px;
}
.pair input[type='date'] {
  height: 28px;
  width: 124px;
  padding: 0 6px;
  font: inherit;
  border: 1px solid #95a39f;
  border-radius: 4px;
  background: #fff;
}
.pair .small {
  width: 76px;
  font-family: inherit;
  font-size: inherit;
}
.pair .small :deep(.v-field__input) {
  height: 28px;
}
@media (max-width: 520px) {
  .pair legend {
    width: 100%;
  }
  .field {
    flex: 1 1 90px;
  }
  .field select {
    width: 100%;
  }
}
.check {
  display: flex;
  gap: 6px;
  align-items: center;
  min-height: 28px;
}
.done {
  margin-left: auto;
}
</style>
