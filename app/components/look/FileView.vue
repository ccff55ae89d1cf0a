<script setup lang="ts">
import { viewOf } from '~~/core/files/fileContents'
import type { FileItem } from '~~/core/files/fileItem'
import { opensInBrowser } from '~~/core/files/mediaType'
import { pictureHref } from '~~/core/page/href'
import { targetFacts } from '~~/core/page/placeholders'

/** What is in a file: is it the right one? */
const props = defineProps<{ file: FileItem }>()
const view = computed(() => viewOf(props.file))
const bytes = computed(() => `/api/files/${props.file.id}/bytes?v=${props.file.sha256.slice(0, 8)}`)
/** Pixels across of a picture that browsers cannot show by themselves: it is drawn for them. */
const DRAWN = 1440
/** Drawings are safe as an image, whatever they hold. */
const picture = computed(() =>
  opensInBrowser(props.file.mediaType) || props.file.mediaType === 'image/svg+xml'
    ? bytes.value
    : pictureHref(targetFacts(props.file), DRAWN),
)
const failed = ref(false)
watch(bytes, () => (failed.value = false))
</script>

<template>
  <div class="file-view">
    <p v-if="!file.size" class="nothing">The file is empty.</p>
    <PdfPages v-else-if="view === 'pages' && file.facts.pages" :file="file" />
    <p v-else-if="view === 'pages' && file.reading === 'waiting'" class="nothing">Its pages are being read…</p>
    <img v-else-if="view === 'picture' && !failed" class="picture" :src="picture" :alt="file.title" @error="failed = true" />
    <audio v-else-if="view === 'sound'" controls preload="metadata" :src="bytes" :aria-label="file.title" />
    <video v-else-if="view === 'film'" controls preload="metadata" :src="bytes" :aria-label="file.title" />
    <FileContents v-else-if="view === 'contents' || (view === 'none' && file.facts.excerpt)" :file="file" />
    <p v-else class="nothing">
      {{
        failed || view === 'pages'
          ? `This ${file.tag} cannot be shown here.`
          : `Trough has no view for ${file.tag} files (${file.mediaType}).`
      }}
      <a :href="`/files/${file.handle}?save`">Download it</a> to look inside.
    </p>
  </div>
</template>

<style scoped>
.file-view {
  display: grid;
  min-width: 0;
}
.picture {
  max-width: 100%;
  max-height: 70vh;
  justify-self: start;
  background: repeating-conic-gradient(#e3e9e7 0 25%, #fff 0 50%) 0 0 / 18px 18px;
  border: 1px solid var(--line);
}
audio,
video {
  width: 100%;
  max-width: 640px;
}
.nothing {
  padding: 26px 18px;
  color: var(--soft);
  background: #f1f4f3;
  border: 1px solid var(--line);
  border-radius: 4px;
}
</style>
