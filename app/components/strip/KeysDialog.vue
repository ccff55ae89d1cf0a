<script setup lang="ts">
const boards = useBoards()

const KEYS = [
  [
    'Anywhere',
    [
      ['Ctrl K', 'Find files, words in them, folders, pages'],
      ['Ctrl Enter in Find', 'Show all that was found in the library'],
      ['Alt 1', 'To the library'],
      ['Alt 2', 'To the page'],
      ['?', 'These keys'],
    ],
  ],
  [
    'On the page',
    [
      ['/', 'Put a button for a file here, or another part'],
      ['Ctrl U', 'A file from this computer, as a button here'],
      ['Ctrl Shift K', 'Link the selected words to a file'],
      ['Enter', 'On a button: its settings; Esc leads back'],
      ['Alt ↑ ↓', 'Move the button, line or part; into columns and out'],
      ['Ctrl D', 'Duplicate the button'],
      ['Delete', 'Remove the button'],
      ['Ctrl Z, Ctrl Shift Z', 'Undo, redo'],
      ['Ctrl Enter', 'Publish'],
      ['Ctrl Shift Enter', 'View live'],
    ],
  ],
  [
    'In the library',
    [
      ['↑ ↓ Home End', 'From line to line'],
      ['Enter', 'Open'],
      ['Space', 'Choose, or no longer'],
      ['Shift ↑ ↓', 'Choose up to there'],
      ['Ctrl A', 'Choose all'],
      ['Esc', 'Choose nothing'],
      ['P', 'Place on the page'],
      ['T', 'Pick up into the trough'],
      ['M', 'Move or copy to a folder'],
      ['E', 'Its next edition, from this computer'],
      ['L', 'Put the edition live that waits'],
      ['F2', 'Rename'],
      ['Delete', 'Into the bin'],
      ['Alt ↑ ↓', 'In your own order: up, down'],
      ['Backspace', 'To the folder above'],
      ['→ ←', 'In the tree: unfold, fold'],
      ['Ctrl V', 'Put in what was copied, or fetch a web address'],
    ],
  ],
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
            <template v-for="[key, words] in keys" :key="key"
              ><dt>
                <kbd>{{ key }}</kbd>
              </dt>
              <dd>{{ words }}</dd></template
            >
          </dl>
        </section>
      </div>
      <VBtn @click="boards.keysShown = false">Close</VBtn>
    </div>
  </VDialog>
</template>

<style scoped>
.groups {
  display: grid;
  gap: 14px;
}
h3 {
  font-size: 13px;
  margin: 0 0 4px;
  color: var(--soft);
  font-weight: 600;
}
dl {
  display: grid;
  grid-template-columns: 170px 1fr;
  gap: 4px 10px;
  margin: 0;
}
dd {
  margin: 0;
}
</style>
