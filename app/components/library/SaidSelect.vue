<script setup lang="ts">
import type { Said } from '~~/core/see/mayBeSeen'

/** Yes, no, or what is said further up, with what that comes to. */
const props = defineProps<{
  label: string
  yes: string
  no: string
  /** what holds where nothing is said here */
  above: boolean
}>()
const said = defineModel<Said>({ required: true })
const choices = computed(() => [
  { value: 'above', title: `As above: ${(props.above ? props.yes : props.no).toLowerCase()}` },
  { value: 'yes', title: props.yes },
  { value: 'no', title: props.no },
])
const chosen = computed({
  get: () => (said.value === null ? 'above' : said.value ? 'yes' : 'no'),
  set: choice => (said.value = choice === 'above' ? null : choice === 'yes'),
})
</script>

<template>
  <VSelect v-model="chosen" class="wide" :label="label" :items="choices" />
</template>

<style scoped>
.wide {
  width: 100%;
}
</style>
