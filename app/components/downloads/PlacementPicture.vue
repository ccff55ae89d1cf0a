<script setup lang="ts">
import { z } from 'zod'

/** A button, link or shelf as visitors see it; nothing where none of them does. */
const { placement } = defineProps<{ placement: string }>()
const html = ref<string | null>(null)
const { problem, attempt } = useAttempt()
watch(
  () => placement,
  async asked => {
    html.value = null
    await attempt(async () => {
      const found = await ask(z.object({ html: z.string().nullable() }), `/downloads/placements/${asked}`)
      if (asked === placement) html.value = found.html
    })
  },
  { immediate: true },
)

/** Pixels; what is higher is a list, of which the beginning tells enough. */
const MOST = 260
const height = ref(0)
function fit({ target }: Event) {
  const { body } = (target as HTMLIFrameElement).contentDocument!
  height.value = Math.min(MOST, body.scrollHeight)
}
</script>

<template>
  <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  <div v-else-if="html" class="picture" inert>
    <iframe title="As visitors see it" :srcdoc="html" sandbox="allow-same-origin" :style="{ height: `${height}px` }" @load="fit" />
  </div>
</template>

<style scoped>
.picture {
  border: 1px solid var(--line);
  overflow: hidden;
}
iframe {
  display: block;
  inline-size: 100%;
  border: 0;
}
</style>
