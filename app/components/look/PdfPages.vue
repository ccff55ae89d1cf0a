<script setup lang="ts">
import type { FileItem } from '~~/core/files/fileItem'

/** Every page of a PDF, each drawn when it comes into sight. */
const props = defineProps<{ file: FileItem }>()
const pages = computed(() => props.file.facts.pages ?? 0)
const scroller = ref<HTMLElement>()
const at = ref(1)
const wanted = ref('')
const failures = ref(new Set<number>())
/** pixels from one page's top to the next's, known once the first is drawn */
const shape = ref(297 / 210)
watch(
  () => props.file.sha256,
  () => (failures.value = new Set()),
)

function onScroll() {
  const area = scroller.value!
  const step = area.scrollHeight / pages.value
  at.value = Math.min(pages.value, Math.floor((area.scrollTop + area.clientHeight / 3) / step) + 1)
}

function goTo() {
  const page = Math.round(Number(wanted.value))
  if (page >= 1 && page <= pages.value) scroller.value?.querySelector(`[data-page="${page}"]`)?.scrollIntoView({ block: 'start' })
  wanted.value = ''
}

function onLoad(event: Event, page: number) {
  const { naturalHeight, naturalWidth } = event.target as HTMLImageElement
  if (page === 1 && naturalWidth) shape.value = naturalHeight / naturalWidth
}
</script>

<template>
  <div class="pdf">
    <div ref="scroller" class="pages" tabindex="0" role="group" :aria-label="`Pages of ${file.title}`" @scroll.passive="onScroll">
      <figure v-for="page in pages" :key="page" :data-page="page" :style="{ aspectRatio: String(1 / shape) }">
        <p v-if="failures.has(page)">Page {{ page }} cannot be drawn.</p>
        <img
          v-else
          :src="`/api/files/${file.id}/pages/${page}?v=${file.sha256.slice(0, 8)}`"
          :alt="`Page ${page} of ${pages}`"
          loading="lazy"
          decoding="async"
          @load="onLoad($event, page)"
          @error="failures = new Set([...failures, page])"
        />
      </figure>
    </div>
    <form v-if="pages > 1" class="where" @submit.prevent="goTo">
      <span>Page {{ at }} of {{ pages }}</span
      ><VTextField v-model="wanted" class="small" inputmode="numeric" placeholder="go to" aria-label="Go to page" maxlength="5" />
    </form>
  </div>
</template>

<style scoped>
.pdf {
  position: relative;
  display: grid;
  min-width: 0;
}
.pages {
  height: max(300px, calc(100dvh - 226px));
  overflow: auto;
  padding: 10px;
  background: #c9d3d0;
  border: 1px solid #a9b7b3;
  border-radius: 4px;
}
figure {
  position: relative;
  display: grid;
  place-items: center;
  max-width: 620px;
  margin: 0 auto 10px;
  background: #fff;
  content-visibility: auto;
  contain-intrinsic-size: auto 620px auto 870px;
}
figure:last-child {
  margin-bottom: 0;
}
img {
  display: block;
  width: 100%;
}
@container (max-width: 680px) {
  .pages {
    height: 58dvh;
  }
}
.where {
  display: flex;
  gap: 14px;
  align-items: center;
  padding: 5px 2px;
  color: var(--soft);
}
.where .v-input {
  flex: none;
  width: 64px;
}
</style>
