<script setup lang="ts">
/** How far the reading of files has come, and what could not be read. */
const reading = useReading()
const listing = useListing()
const library = useLibrary()
const now = computed(() => (reading.progress.now ? library.known.get(reading.progress.now)?.title : undefined))
const busy = ref(false)

async function again() {
  busy.value = true
  await useSelection().attempt(() => reading.again())
  busy.value = false
}
</script>

<template>
  <p v-if="reading.progress.waiting || reading.progress.failed" class="reading-line">
    <span v-if="reading.progress.waiting" class="going"
      ><i aria-hidden="true" />Looking into {{ counted(reading.progress.waiting, 'file') }}{{ now ? `, now “${now}”` : '' }}</span
    >
    <template v-if="reading.progress.failed">
      <span>{{ counted(reading.progress.failed, 'file') }} could not be read.</span>
      <VBtn
        @click="
          () => {
            listing.open(null)
            listing.filters.reading = 'failed'
          }
        "
      >
        Show
      </VBtn>
      <VBtn :disabled="busy" @click="again">Try again</VBtn>
    </template>
  </p>
</template>

<style scoped>
.reading-line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 8px;
  min-height: 30px;
  padding: 0 12px;
  background: #f5f8f7;
  border-top: 1px solid var(--line);
  color: var(--soft);
  font-size: 12.5px;
}
.going {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  min-width: 0;
}
i {
  display: inline-block;
  width: 8px;
  height: 8px;
  margin-right: 7px;
  background: var(--water);
  border-radius: 50%;
  animation: pulse 1.4s infinite;
}
@keyframes pulse {
  50% {
    opacity: 0.2;
  }
}
</style>
