<script setup lang="ts">
import type { TextChange, TextComparison } from '~~/core/editions/compareTexts'

/** What changed in the words of a document, line by line. */
defineProps<{ texts: TextComparison }>()

/** Lines of one change, and characters of a line, that are shown before somebody asks for the rest. */
const [FEW_LINES, FEW_CHARACTERS] = [6, 240]
const unfolded = ref(new Set<number>())
const shortened = (line: string) => (line.length > FEW_CHARACTERS ? `${line.slice(0, FEW_CHARACTERS)}…` : line)
const isLong = ({ before, after }: TextChange) =>
  before.length + after.length > 2 * FEW_LINES || [...before, ...after].some(line => line.length > FEW_CHARACTERS)
/** A change as it is shown: long ones folded, whatever they say. */
const shown = (change: TextChange, index: number): TextChange =>
  unfolded.value.has(index) || !isLong(change)
    ? change
    : { ...change, before: change.before.slice(0, FEW_LINES).map(shortened), after: change.after.slice(0, FEW_LINES).map(shortened) }

/** As many lines for as many: each stands below the one it takes the place of. */
const pairs = ({ before, after }: TextChange): TextChange[] =>
  before.length === after.length
    ? before.map((line, at) => ({ part: '', before: [line], after: [after[at]!] }))
    : [{ part: '', before, after }]
</script>

<template>
  <p v-if="texts.apart" class="hint">
    They differ too much for single changes to be told: {{ Math.round(100 * texts.inCommon) }} % of the words are in both.
  </p>
  <p v-else-if="!texts.total" class="hint">No word has changed.</p>
  <template v-else>
    <p class="hint">
      {{ counted(texts.total, 'change') }}; {{ Math.round(100 * texts.inCommon) }} % of the words are in both.{{
        texts.total > texts.changes.length ? ` The first ${texts.changes.length}:` : ''
      }}
    </p>
    <ol tabindex="0" aria-label="What changed in the text">
      <li v-for="(change, index) in texts.changes" :key="index">
        <span class="part">{{ change.part }}</span>
        <div>
          <template v-for="(pair, line) in pairs(shown(change, index))" :key="line">
            <del v-for="(words, at) in pair.before" :key="`b${at}`"><span class="tr-spoken">Gone: </span>{{ words }}</del>
            <ins v-for="(words, at) in pair.after" :key="`a${at}`"><span class="tr-spoken">New: </span>{{ words }}</ins>
          </template>
          <VBtn v-if="isLong(change) && !unfolded.has(index)" @click="unfolded.add(index)"
            >All {{ counted(Math.max(change.before.length, change.after.length), 'line') }}</VBtn
          >
        </div>
      </li>
    </ol>
  </template>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
  max-height: 210px;
  overflow: auto;
  border: 1px solid var(--line);
}
li {
  display: grid;
  grid-template-columns: 74px minmax(0, 1fr);
  gap: 8px;
  padding: 5px 8px;
}
li + li {
  border-top: 1px solid var(--line);
}
.part {
  color: var(--soft);
  font-size: 12px;
}
del,
ins {
  display: block;
  padding: 0 6px;
  text-decoration: none;
  overflow-wrap: anywhere;
  border-left: 3px solid;
}
del {
  border-color: #9a4420;
  color: #7a3618;
  text-decoration: line-through;
}
ins {
  border-color: var(--moss);
}
</style>
