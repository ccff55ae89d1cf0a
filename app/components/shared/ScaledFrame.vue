<script setup lang="ts">
/** A page in a frame as wide as a visitor's screen, drawn smaller where there is less room, never larger. */
const { width, sandbox = '' } = defineProps<{
  source: string
  title: string
  /** CSS pixels of the screen */ width: number
  sandbox?: string
}>()
const stage = ref<HTMLElement>()
const { width: room, height } = useElementSize(stage)
const scale = computed(() => Math.min(1, room.value / width || 1))
</script>

<template>
  <div ref="stage" class="stage">
    <div class="screen" :style="{ width: `${width * scale}px` }">
      <iframe
        :src="source"
        :title="title"
        :sandbox="sandbox"
        :style="{ width: `${width}px`, height: `${height / scale}px`, transform: `scale(${scale})` }"
      />
    </div>
  </div>
</template>

<style scoped>
.stage {
  overflow: hidden;
  background: #bfcac7;
  display: flex;
  justify-content: center;
}
.screen {
  background: #fff;
  overflow: hidden;
  flex: none;
}
iframe {
  border: 0;
  display: block;
  transform-origin: top left;
}
</style>
