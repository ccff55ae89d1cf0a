<script setup lang="ts">
/** A board with a list, and, in its margin, the particulars of what is chosen there. */
defineProps<{ heading: string }>()
</script>

<template>
  <div class="margin-board">
    <header class="board-head">
      <NuxtLink to="/desk" class="back">Pages</NuxtLink>
      <h1>{{ heading }}</h1>
      <slot name="acts" />
    </header>
    <slot />
    <div v-if="$slots.list" class="sheet">
      <div class="list"><slot name="list" /></div>
      <div v-if="$slots.margin" class="margin"><slot name="margin" /></div>
    </div>
  </div>
</template>

<style scoped>
.margin-board {
  display: flex;
  flex-direction: column;
  min-height: 0;
  flex: 1;
}
.sheet {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 330px;
}
.sheet:not(:has(> .margin)) {
  grid-template-columns: minmax(0, 1fr);
}
.list {
  min-height: 0;
  overflow: auto;
  background: #fff;
}
.margin {
  min-height: 0;
  overflow: auto;
  border-left: 1px solid var(--line);
  background: #f5f8f7;
}
@container (max-width: 680px) {
  .sheet {
    display: block;
    overflow: auto;
  }
  .list,
  .margin {
    overflow: visible;
  }
  .margin {
    border-left: 0;
    border-top: 1px solid var(--line);
  }
}
</style>
