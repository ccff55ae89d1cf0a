<script setup lang="ts">
import { useBench } from '~/bench/bench'

/** The line above the sheet: which page it is, whether it is saved, and the way to its settings, its preview and what is live. */
const page = usePage()
const { margin, previewing, preview, callSettings } = useBench()
const { hasNote } = margin

const saveWords = computed(
  () =>
    ({
      saved: 'Saved',
      changed: 'Saving…',
      saving: 'Saving…',
      failed: `Not saved yet. ${page.problem}`,
      conflict: 'Not saved',
    })[page.state],
)
</script>

<template>
  <div v-if="page.current" class="head">
    <BackLink />
    <h1 class="address">
      <template v-if="page.current.edge">{{ page.current.title }}</template>
      <template v-else
        ><span class="tr-spoken">{{ page.current.title }}, </span><code>/{{ page.current.slug }}</code></template
      >
    </h1>
    <span class="save" :class="page.state" role="status">{{ saveWords }}</span>
    <VBtn :aria-pressed="!hasNote" title="Address, words for search engines, menu, earlier versions" @click="callSettings">
      Page settings
    </VBtn>
    <VBtn :aria-pressed="previewing" title="The draft as visitors would see it" @click="preview">
      {{ previewing ? 'Back to writing' : 'Preview' }}
    </VBtn>
    <a v-if="page.liveHref" :href="page.liveHref" target="_blank" class="live" title="Open the live page (Ctrl+Shift+Enter)">View live</a>
    <span v-else class="never">Not live yet</span>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: 12px;
  height: 38px;
  padding: 0 12px;
  border-bottom: 1px solid var(--line);
  white-space: nowrap;
}
.address {
  margin: 0;
  font-size: inherit;
  font-weight: 400;
  color: var(--soft);
  overflow: hidden;
  text-overflow: ellipsis;
}
.save {
  margin-left: auto;
  color: var(--soft);
  overflow: hidden;
  text-overflow: ellipsis;
}
.save.failed,
.save.conflict {
  color: #9a4420;
  font-weight: 600;
}
.never {
  color: var(--soft);
}
@container (max-width: 480px) {
  .head {
    flex-wrap: wrap;
    height: auto;
    gap: 2px 10px;
    padding: 6px 12px;
  }
  .head::after {
    content: '';
    order: 1;
    flex-basis: 100%;
  }
  .head > .plain,
  .head > .live,
  .head > .never {
    order: 2;
  }
}
</style>
