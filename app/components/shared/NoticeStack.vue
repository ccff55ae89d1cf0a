<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import type { Notice } from '~/stores/notices'

const notices = useNotices()

async function act(notice: Notice) {
  notices.dismiss(notice.id)
  try {
    await notice.action?.run()
  } catch (error) {
    notices.say(wordsOf(error), { tone: 'attention' })
  }
}
</script>

<template>
  <section class="notices" aria-label="What just happened" aria-live="polite">
    <div v-for="notice in notices.items" :key="notice.id" class="notice" :class="`tone-${notice.tone}`">
      <p>{{ notice.text }}</p>
      <button v-if="notice.action" type="button" class="act" @click="act(notice)">{{ notice.action.label }}</button>
      <button type="button" class="close" aria-label="Dismiss" @click="notices.dismiss(notice.id)">
        <VIcon :icon="mdiClose" size="16" />
      </button>
    </div>
  </section>
</template>

<style scoped>
.notices {
  position: absolute;
  right: 14px;
  bottom: 14px;
  z-index: 3000;
  display: grid;
  gap: 6px;
  width: 360px;
  max-width: calc(100vw - 28px);
}
.notice {
  display: flex;
  align-items: flex-start;
  gap: 10px;
  padding: 9px 8px 9px 12px;
  background: var(--ink);
  color: #fff;
  border-radius: 4px;
  border-left: 5px solid #7f8f8b;
}
.tone-works {
  border-color: #7fb26a;
}
.tone-attention {
  border-color: #e08a5e;
}
p {
  flex: 1;
  margin: 0;
  line-height: 1.4;
  overflow-wrap: anywhere;
}
.act {
  color: #fff;
  font-weight: 600;
  text-decoration: underline;
  text-underline-offset: 3px;
  white-space: nowrap;
}
.close {
  color: #c9d3d0;
  width: 24px;
  height: 24px;
}
button:focus-visible {
  outline: 2px solid var(--straw);
  outline-offset: 2px;
}
</style>
