<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import type { Notice } from '~/stores/notices'

const notices = useNotices()
const STAYS = 9000

/** What needs attention waits until it was read. */
const shown = computed({
  get: () =>
    notices.waiting.map(notice => ({
      ...notice,
      class: `notice tone-${notice.tone}`,
      timeout: notice.tone === 'attention' ? -1 : STAYS,
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
    <VSnackbarQueue v-model="shown" attach contained location="bottom end" total-visible="3" display-strategy="overflow">
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
