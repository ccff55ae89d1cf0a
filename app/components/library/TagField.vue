<script setup lang="ts">
import { z } from 'zod'

const tagsSchema = z.object({ items: z.array(z.object({ tag: z.string() })) })
/** Tags, typed one after another: Enter or a comma ends one. */
const LONGEST = 60
defineProps<{ label: string }>()
const tags = defineModel<string[]>({ required: true })
const typed = ref('')
const open = ref(false)
/** Known tags come up once something is typed: before, they would lie over what stands below. */
const offers = computed({ get: () => open.value && !!typed.value, set: value => (open.value = value) })
const known = ref<string[]>([])

onMounted(async () => {
  known.value = (await ask(tagsSchema, '/tags')).items.map(({ tag }) => tag)
})

function set(given: string[]) {
  tags.value = [...new Set(given.map(tag => tag.trim().slice(0, LONGEST)).filter(Boolean))]
}
</script>

<template>
  <VCombobox
    v-model:menu="offers"
    v-model:search="typed"
    :model-value="tags"
    :label="label"
    :items="known"
    :delimiters="[',']"
    :maxlength="LONGEST"
    multiple
    chips
    hide-selected
    auto-select-first="exact"
    menu-icon=""
    :placeholder="tags.length ? undefined : 'Type a tag, then Enter'"
    autocomplete="off"
    @update:model-value="set"
  >
    <template #chip="{ item, props: chip }">
      <VChip v-bind="chip" :text="item" closable :close-label="`Take off ${item}`" />
    </template>
  </VCombobox>
</template>
