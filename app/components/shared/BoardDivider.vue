<script setup lang="ts">
const boards = useBoards()

function drag(event: PointerEvent) {
  const handle = event.currentTarget as HTMLElement
  handle.setPointerCapture(event.pointerId)
  const move = (moved: PointerEvent) => boards.resize(moved.clientX)
  handle.addEventListener('pointermove', move)
  handle.addEventListener('pointerup', () => handle.removeEventListener('pointermove', move), { once: true })
}

function onKey(event: KeyboardEvent) {
  const step = { ArrowLeft: -24, ArrowRight: 24 }[event.key]
  if (!step) return
  event.preventDefault()
  boards.resize(boards.width + step)
}
</script>

<template>
  <div
    class="divider"
    role="separator"
    tabindex="0"
    aria-orientation="vertical"
    aria-label="Width of the library"
    :aria-valuenow="boards.width"
    :aria-valuemin="boards.least"
    aria-valuemax="2000"
    title="Drag to share the window; double-click for the usual width"
    @pointerdown.prevent="drag"
    @keydown="onKey"
    @dblclick="boards.resize(460)"
  />
</template>

<style scoped>
.divider {
  width: 7px;
  cursor: col-resize;
  background: #c3cecb;
  border: solid #a9b7b3;
  border-width: 0 1px;
  touch-action: none;
}
.divider:hover {
  background: #a9bbb7;
}
.divider:focus-visible {
  outline: 2px solid var(--water);
  outline-offset: -1px;
  background: #a9bbb7;
}
</style>
