<script setup lang="ts">
import { boardSchema } from '~~/core/tally/board'
import type { Listed } from '~~/core/tally/particulars'
import { mayOpen } from '~/rights/boards'

/** How often something was taken in all, asked from the board; nothing for who may not see that. */
const props = defineProps<{ dimension: Listed; of: string }>()
const rights = useRights()
const taken = useTaken()
const count = ref<number>()
const { problem, attempt } = useAttempt()
const allowed = computed(() => mayOpen(rights, '/desk/downloads'))
async function load() {
  const { dimension, of } = props
  if (!allowed.value) return
  await attempt(async () => {
    const { total } = await ask(boardSchema, `/downloads/board?${new URLSearchParams({ span: 'all', [dimension]: of, most: '1' })}`)
    // What was asked for first may come last.
    if (of === props.of) count.value = total.count
  })
}
const loadSoon = useThrottleFn(load, 3000, true)
watch(
  () => props.of,
  () => {
    count.value = undefined
    void load()
  },
  { immediate: true },
)
watch(
  () => taken.changes,
  () => void loadSoon(),
)
</script>

<template>
  <p v-if="problem" role="alert">{{ problem }}</p>
  <p v-else-if="count !== undefined">
    <DownloadsLink
      :dimension="dimension"
      :of="of"
      :count="count"
      :words="count ? `${counted(count, 'download')} by it` : 'Nothing was taken by it yet'"
    />
  </p>
</template>
