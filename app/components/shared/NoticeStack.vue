<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import type { Notice } from '~/stores/notices'

const notices = useNotices()
/** How long something stays, in milliseconds, from when somebody is at the desk, and while nobody is. */
const STAYS = 9000
const STAYS_UNSEEN = 60_000

/**
 * Whether a hand or a key moved since something was last said: the time in which it can be taken back
 * begins with that (WCAG 2.2.1).
 */
const isSeen = ref(false)
watch(
  () => notices.waiting.length,
  left => {
    if (left) isSeen.value = false
  },
)
useEventListener(window, ['pointermove', 'pointerdown', 'keydown', 'wheel'], () => (isSeen.value = true), { capture: true, passive: true })

/** What needs attention waits until it was read. */
const shown = computed({
  get: () =>
    notices.waiting.map(notice => ({
      ...notice,
      class: `notice tone-${notice.tone}`,
      ...(notice.tone === 'attention' && { timeout: -1 }),
      onDismiss: () => notices.gone(notice.text),
    })),
  set: rest => (notices.waiting = rest),
})

async function act({ action }: Notice) {
  try {
    await action?.run()
  } catch (error) {
    notices.refused(error)
  }
}
</script>

<template>
  <section class="notices" aria-label="What just happened">
    <VSnackbarQueue
      v-model="shown"
      :timeout="isSeen ? STAYS : STAYS_UNSEEN"
      attach
      contained
      location="bottom end"
      total-visible="3"
      display-strategy="overflow"
    >
      <template #actions="{ item, props: leave }">
        <VBtn
          v-if="(item as Notice).action"
          class="act"
          @click="
            () => {
              leave.onClick()
              act(item as Notice)
            }
          "
          >{{ (item as Notice).action!.label }}</VBtn
        >
        <VBtn v-bind="leave" class="close" aria-label="Dismiss" :icon="mdiClose" />
      </template>
    </VSnackbarQueue>
  </section>
</template>
