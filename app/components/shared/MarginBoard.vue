<script setup lang="ts">
/** A board with a list, and, in its margin, the particulars of what is chosen there. */
defineProps<{ heading: string }>()
</script>

<template>
  <div class="margin-board">
    <header class="board-head">
      <BackLink />
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
.margin-board :deep(.new) {
  display: grid;
  gap: 8px;
  padding: 12px 16px;
  background: #fff;
  border-bottom: 1px solid var(--line);
}
.margin-board :deep(.say) {
  padding: 14px 16px;
  line-height: 1.5;
}
.margin-board :deep(.empty) {
  display: grid;
  gap: 8px;
  justify-items: start;
  max-width: 560px;
}
.margin-board :deep(.bar) {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 10px 16px;
}
.margin-board :deep(.bar > .v-input) {
  flex: 1 1 150px;
}
.list :deep(.foot) {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  padding: 8px 16px;
  color: var(--soft);
}
.list :deep(td.when) {
  white-space: nowrap !important;
}
.margin :deep(.particulars) {
  display: grid;
  gap: 12px;
  padding: 14px 16px 30px;
  line-height: 1.45;
}
.margin :deep(.particulars p) {
  margin: 0;
}
.margin :deep(.particulars h2) {
  font-size: 15px;
  font-weight: 650;
  overflow-wrap: anywhere;
}
.list :deep(tbody tr) {
  cursor: pointer;
}
.list :deep(tr.chosen > td) {
  background: #edf3f2;
}
.list :deep(tr.chosen > td:first-child) {
  box-shadow: inset 3px 0 var(--water);
}
.list :deep(td:not(.when)) {
  white-space: normal !important;
}
/* What is pressed to see the particulars: as long as it has to be, and over more than one line. */
.list :deep(td:first-child > .v-btn) {
  padding: 5px 8px 5px 0;
}
.list :deep(td:first-child > .v-btn .v-btn__content) {
  white-space: normal;
  overflow-wrap: anywhere;
  text-align: left;
}
.margin-board :deep(.fault) {
  color: #9a4420;
  font-weight: 600;
  line-height: 1.4;
  overflow-wrap: anywhere;
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
