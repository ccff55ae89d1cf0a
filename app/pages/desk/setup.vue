<script setup lang="ts">
import { mayOpen } from '~/rights/boards'

/** What is set once: sections beside each other, each with an address of its own. */
const SECTIONS = [
  { words: 'Site', to: '/desk/setup' },
  { words: 'Files', to: '/desk/setup/files' },
  { words: 'Password and sign-in', to: '/desk/setup/people' },
  { words: 'Storage and backup', to: '/desk/setup/storage' },
  { words: 'Moving in and out', to: '/desk/setup/moving' },
  { words: 'Other services', to: '/desk/setup/services' },
  { words: 'Log', to: '/desk/setup/log' },
]
const rights = useRights()
const sections = computed(() => SECTIONS.filter(({ to }) => mayOpen(rights, to)))
</script>

<template>
  <div class="setup">
    <header class="board-head">
      <BackLink />
      <h1>Setup</h1>
    </header>
    <div class="body">
      <nav aria-label="Sections of the setup">
        <NuxtLink v-for="{ words, to } in sections" :key="to" :to="to" exact-active-class="here">{{ words }}</NuxtLink>
      </nav>
      <div class="section"><NuxtPage /></div>
    </div>
  </div>
</template>

<style scoped>
.setup {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.body {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 184px minmax(0, 1fr);
}
nav {
  display: grid;
  align-content: start;
  gap: 1px;
  padding: 10px 8px;
  overflow: auto;
  border-right: 1px solid var(--line);
}
nav a {
  padding: 6px 10px;
  border-radius: 3px;
  color: var(--ink);
  text-decoration: none;
  white-space: nowrap;
}
nav a:hover {
  background: #f1f6f5;
}
nav .here {
  font-weight: 600;
  background: #d9e8e6;
  box-shadow: inset 3px 0 var(--water);
}
.section {
  overflow: auto;
}
.section :deep(> *) {
  display: grid;
  gap: 30px;
  max-width: 720px;
  padding: 18px 18px 40px;
}
@container (max-width: 620px) {
  .body {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto minmax(0, 1fr);
  }
  nav {
    border-right: 0;
    border-bottom: 1px solid var(--line);
  }
  nav {
    display: flex;
    flex-wrap: wrap;
    padding: 4px 6px;
  }
  nav .here {
    box-shadow: inset 0 -3px var(--water);
  }
}
</style>
