<script setup lang="ts">
import { mdiClose, mdiFilterVariant, mdiViewColumnOutline } from '@mdi/js'
import { COLUMNS, COLUMN_KEYS, type ColumnKey } from '~/library/fileColumns'
import { filterWords, type FilterWord } from '~/library/filterWords'

/** What narrows the list, as words that can be taken away; and how the list is shown. */
const listing = useListing()
const open = ref(false)
const words = computed(() => filterWords(listing.filters))

const SORTS: [string, string][] = [
  ['-changed', 'Newest first'],
  ['changed', 'Oldest first'],
  ['title', 'By title'],
  ['type', 'By type'],
  ['-size', 'Largest first'],
  ['-used', 'Most used first'],
  ['-downloads', 'Most downloaded first'],
  ['-taken7', 'Most downloaded in 7 days'],
  ['-taken30', 'Most downloaded in 30 days'],
  ['-taken90', 'Most downloaded in 90 days'],
]
const sorts = computed(() => (listing.openFolder?.ownOrder ? [['own', 'In my own order'] as [string, string], ...SORTS] : SORTS))

function take(word: FilterWord) {
  if (word.value)
    Object.assign(listing.filters, { [word.clear]: (listing.filters[word.clear] as string[]).filter(value => value !== word.value) })
  else listing.clear(word.clear)
}

function close(event: KeyboardEvent) {
  if (!open.value) return
  open.value = false
  event.stopPropagation()
}

function turnColumn(key: ColumnKey) {
  listing.columns = listing.columns.includes(key) ? listing.columns.filter(other => other !== key) : [...listing.columns, key]
}
</script>

<template>
  <div class="filter-bar" @keydown.esc="close">
    <div class="line">
      <VBtn class="tool" :aria-expanded="open" @click="open = !open"> <VIcon :icon="mdiFilterVariant" size="16" />&nbsp;Narrow down </VBtn>
      <ul v-if="words.length || listing.bin" class="words" aria-label="What narrows the list">
        <li v-if="listing.bin">
          <VBtn color="ink" class="word" aria-label="Take away: in the bin" @click="listing.open(null)">
            in the bin<VIcon :icon="mdiClose" size="13" />
          </VBtn>
        </li>
        <li v-for="word in words" :key="word.words">
          <VBtn color="ink" class="word" :aria-label="`Take away: ${word.words}`" @click="take(word)">
            {{ word.words }}<VIcon :icon="mdiClose" size="13" />
          </VBtn>
        </li>
        <li v-if="listing.folder && listing.filtered">
          <VBtn color="ink" class="word" :aria-pressed="listing.onlyHere" @click="listing.onlyHere = !listing.onlyHere">
            {{ listing.onlyHere ? 'only in this folder' : 'here and below' }}
          </VBtn>
        </li>
        <li v-if="words.length > 1"><VBtn @click="listing.clear()">Take all away</VBtn></li>
      </ul>
      <span class="right">
        <VSelect
          class="sorts small"
          :class="{ needed: listing.view === 'tiles' }"
          :model-value="listing.order"
          aria-label="Order of the files"
          :items="sorts.map(([value, title]) => ({ value, title }))"
          @update:model-value="listing.sort = $event"
        />
        <VMenu v-if="listing.view !== 'tiles'" :close-on-content-click="false" location="bottom end">
          <template #activator="{ props: activator }">
            <VBtn class="tool" v-bind="activator" aria-label="Columns to show" title="Columns to show">
              <VIcon :icon="mdiViewColumnOutline" size="18" />
            </VBtn>
          </template>
          <fieldset class="pop columns-pop">
            <legend>Columns, as far as there is room</legend>
            <VCheckbox
              v-for="key in COLUMN_KEYS"
              :key="key"
              :label="`${COLUMNS[key].words}`"
              :model-value="listing.columns.includes(key)"
              @update:model-value="turnColumn(key)"
            />
          </fieldset>
        </VMenu>
        <VBtn v-if="!listing.bin" class="tool" @click="listing.openBin()">Bin</VBtn>
      </span>
    </div>
    <LazyFilterPanel v-if="open" @close="open = false" />
  </div>
</template>

<style scoped>
.filter-bar {
  border-bottom: 1px solid var(--line);
  background: var(--grey);
}
.line {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 34px;
  padding: 2px 6px;
}
.tool {
  flex: none;
}
.tool[aria-expanded='true'] {
  background: #cbd8d5;
  color: var(--ink);
}
.words {
  flex: 1;
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  list-style: none;
  margin: 0;
  padding: 3px 0;
  min-width: 0;
}
.word {
  display: inline-flex;
  align-items: center;
  gap: 4px;
  height: 24px;
  padding: 0 7px;
  background: #fff;
  border: 1px solid var(--water);
  border-radius: 3px;
  color: var(--ink);
  white-space: nowrap;
}
.word:hover {
  background: #dde9e7;
}
.word[aria-pressed] {
  border-style: dashed;
}
.right {
  display: flex;
  align-items: center;
  gap: 2px;
  margin-left: auto;
  flex: none;
}
.sorts {
  display: none;
  height: 26px;
  max-width: 150px;
}
.sorts.needed {
  display: block;
}
@container (max-width: 420px) {
  .line {
    flex-wrap: wrap;
  }
  .words {
    order: 3;
    flex: 1 0 100%;
    padding: 0 6px 5px;
    box-sizing: border-box;
  }
  .sorts {
    display: block;
    max-width: 116px;
  }
}
.columns-pop {
  display: grid;
  gap: 4px;
  margin: 0;
  padding: 10px 14px;
  border: 1px solid var(--ink);
}
.columns-pop legend {
  float: left;
  width: 100%;
  padding: 0 0 4px;
  color: var(--soft);
  font-size: 12.5px;
}
.columns-pop label {
  display: flex;
  gap: 7px;
  align-items: center;
  min-height: 24px;
}
</style>
