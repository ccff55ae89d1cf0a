<script setup lang="ts">
const boards = useBoards()

const KEYS = [
  ['Anywhere', [['Ctrl K', 'Find files, pages and settings'], ['Alt 1', 'To the library'], ['Alt 2', 'To the page'], ['?', 'These keys']]],
  ['On the page', [
    ['/', 'Find a file and put a button here'], ['Ctrl U', 'A file from this computer, as a button here'], ['Ctrl Shift K', 'Link the selected words to a file'],
    ['Enter', 'On a button: its settings; Esc leads back'], ['Alt ↑ ↓', 'Move the button or line'], ['Ctrl D', 'Duplicate the button'], ['Delete', 'Remove the button'],
    ['Ctrl Z, Ctrl Shift Z', 'Undo, redo'], ['Ctrl Enter', 'Publish'], ['Ctrl Shift Enter', 'View live'],
  ]],
  ['In the library', [['↑ ↓', 'From file to file'], ['Enter', 'Open the file'], ['P', 'Place it on the page'], ['Space', 'Pick it up into the trough'], ['Delete', 'Put it in the bin']]],
] as const
</script>

<template>
  <VDialog v-model="boards.keysShown" max-width="640" aria-labelledby="keys-head">
    <div class="dialog">
      <h2 id="keys-head">Keys</h2>
      <div class="groups">
        <section v-for="[group, keys] in KEYS" :key="group">
          <h3>{{ group }}</h3>
          <dl>
            <template v-for="[key, words] in keys" :key="key"><dt><kbd>{{ key }}</kbd></dt><dd>{{ words }}</dd></template>
          </dl>
        </section>
      </div>
      <button type="button" class="plain" @click="boards.keysShown = false">Close</button>
    </div>
  </VDialog>
</template>

<style scoped>
.groups { display: grid; gap: 14px; }
h3 { font-size: 13px; margin: 0 0 4px; color: var(--soft); font-weight: 600; }
dl { display: grid; grid-template-columns: 170px 1fr; gap: 4px 10px; margin: 0; }
dd { margin: 0; }
</style>
