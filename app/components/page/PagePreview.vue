<script setup lang="ts">
import { PREVIEW_CHOICES } from '~/editor/words'

/** The draft as visitors would get it, at the width of their screens; drawn by the very renderer that answers them. */
const page = usePage()
const width = useLocalStorage('trough-preview', 1280)
const source = computed(() => `/api/pages/${page.current!.id}/preview?revision=${page.current!.revision}`)
</script>

<template>
  <section class="preview" aria-label="Preview of this page">
    <div class="bar">
      <ChoiceField class="widths" legend="Width of the screen" :choices="PREVIEW_CHOICES" :value="width" @choose="width = $event" />
      <p class="hint">The draft as it would be live.</p>
      <a :href="source" target="_blank" class="plain">In a tab of its own</a>
    </div>
    <ScaledFrame
      class="stage"
      :source="source"
      :title="`“${page.current!.title}” at ${width} pixels`"
      :width="width"
      sandbox="allow-popups allow-downloads"
    />
  </section>
</template>

<style scoped>
.preview {
  display: flex;
  flex-direction: column;
  flex: 1;
  min-height: 0;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  padding: 4px 12px;
  border-bottom: 1px solid var(--line);
  background: #f1f4f3;
}
.widths {
  width: 270px;
}
.widths :deep(legend) {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
.bar .plain {
  margin-left: auto;
}
.stage {
  flex: 1;
  min-height: 0;
}
</style>
