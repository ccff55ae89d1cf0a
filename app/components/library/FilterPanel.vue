<script setup lang="ts">
import { z } from 'zod'
import { isDay } from '~~/core/timetable/setTime'
import { FAMILIES } from '~~/core/files/mediaType'
import { FAMILY_WORDS } from '~/library/filterWords'

const tagsSchema = z.object({ items: z.array(z.object({ tag: z.string(), files: z.number() })) })

/** Everything a list can be narrowed by; each takes effect at once. */
defineEmits<{ close: [] }>()
const listing = useListing()
const tags = ref<{ title: string; value: string }[]>([])
const USES = [
  { title: 'all', value: '' },
  { title: 'used on a page', value: 'yes' },
  { title: 'not used', value: 'no' },
]
const STATES = [
  { title: 'all', value: '' },
  { title: 'could not be read', value: 'failed' },
  { title: 'still to be read', value: 'waiting' },
]
const MEGABYTE = 1_000_000

onMounted(async () => {
  const { items } = await ask(tagsSchema, '/tags')
  tags.value = items.map(({ tag, files }) => ({ title: `${tag} (${files})`, value: tag }))
})

function addTag(tag: string) {
  if (tag) listing.filters.tag = [...new Set([...listing.filters.tag, tag])]
}

/** Days as they are typed; what is none yet does not narrow anything down. */
const days = reactive({ changedFrom: '', changedTo: '', addedFrom: '', addedTo: '' })
watch(
  () => listing.filters,
  ({ changedFrom, changedTo, addedFrom, addedTo }) => Object.assign(days, { changedFrom, changedTo, addedFrom, addedTo }),
  { immediate: true, deep: true },
)
const dayField = (name: keyof typeof days) => ({
  'modelValue': days[name],
  'onUpdate:modelValue': (text: string) => {
    days[name] = text
    if (!text || isDay(text)) listing.filters[name] = text
  },
  'rules': [(text: string) => !text || isDay(text) || 'Such as 2026-12-01.'],
  'validateOn': 'blur' as const,
})

const inMegabytes = (bytes: number | null) => (bytes === null ? null : bytes / MEGABYTE)
const inBytes = (megabytes: number | null) => (megabytes === null ? null : Math.round(megabytes * MEGABYTE))
</script>

<template>
  <div class="panel" role="group" aria-label="Narrow down">
    <fieldset class="kinds pills">
      <legend>Kind</legend>
      <VCheckbox v-for="family in FAMILIES" :key="family" v-model="listing.filters.type" :value="family" :label="FAMILY_WORDS[family]" />
    </fieldset>
    <VSelect v-model="listing.filters.used" label="Use" :items="USES" />
    <VSelect
      label="Tag"
      :model-value="''"
      :items="[{ title: tags.length ? 'choose…' : 'no tags yet', value: '' }, ...tags]"
      :disabled="!tags.length"
      @update:model-value="addTag"
    />
    <VSelect v-model="listing.filters.reading" label="State" :items="STATES" />
    <DateField v-bind="dayField('changedFrom')" label="Changed from" />
    <DateField v-bind="dayField('changedTo')" label="Changed to" />
    <DateField v-bind="dayField('addedFrom')" label="Added from" />
    <DateField v-bind="dayField('addedTo')" label="Added to" />
    <VNumberInput
      label="Size from"
      suffix="MB"
      :min="0"
      :precision="null"
      :model-value="inMegabytes(listing.filters.least)"
      @update:model-value="listing.filters.least = inBytes($event)"
    />
    <VNumberInput
      label="Size to"
      suffix="MB"
      :min="0"
      :precision="null"
      :model-value="inMegabytes(listing.filters.most)"
      @update:model-value="listing.filters.most = inBytes($event)"
    />
    <VCheckbox v-model="listing.filters.waits" class="waits" label="Newer edition waiting" />
    <VBtn class="done" @click="$emit('close')">Close</VBtn>
  </div>
</template>

<style scoped>
.panel {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(128px, 1fr));
  gap: 8px 12px;
  align-items: end;
  padding: 8px 12px 12px;
  background: #f5f8f7;
  border-top: 1px solid var(--line);
}
.kinds {
  grid-column: 1 / -1;
  border: 0;
  margin: 0;
  padding: 0;
  min-width: 0;
}
legend {
  color: var(--soft);
  font-size: 12.5px;
  padding: 0 0 3px;
}
.waits {
  grid-column: 1 / -2;
}
.done {
  justify-self: end;
}
</style>
