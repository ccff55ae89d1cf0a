<script setup lang="ts">
import { CLASH_WAYS, type ClashWay } from '~~/core/files/clash'
import { formatSize } from '~~/core/files/size'

/** Asks what becomes of files whose names are taken: one by one, or all alike. */
const clashes = useClashes()
const ways = ref<Record<string, ClashWay>>({})
const WAY_WORDS: Record<ClashWay, string> = { edition: 'New edition', both: 'Keep both', skip: 'Leave out' }
const ORDER: ClashWay[] = [...CLASH_WAYS].sort((a, b) => Object.keys(WAY_WORDS).indexOf(a) - Object.keys(WAY_WORDS).indexOf(b))
const items = computed(() => clashes.open?.clashes ?? [])

watch(
  () => clashes.open,
  open => {
    if (open) setAll('edition')
  },
)
function setAll(way: ClashWay) {
  ways.value = Object.fromEntries(items.value.map(({ name }) => [name, way]))
}
</script>

<template>
  <VDialog :model-value="!!clashes.open" max-width="640" aria-labelledby="clash-head" @update:model-value="clashes.open?.answer(undefined)">
    <form class="dialog" @submit.prevent="clashes.open?.answer(new Map(Object.entries(ways)))">
      <h2 id="clash-head">
        {{ items.length === 1 ? 'A file of that name is there already' : `${items.length} files of the same names are there already` }}
      </h2>
      <p>A <b>new edition</b> keeps the address: every button leads to the new file at once, and the old one can be brought back.</p>
      <div v-if="items.length > 1" class="all">
        <span>All of them:</span>
        <VBtn v-for="way in ORDER" :key="way" variant="outlined" @click="setAll(way)">{{ WAY_WORDS[way] }}</VBtn>
      </div>
      <ul>
        <li v-for="{ name, file } in items" :key="name">
          <span class="name"
            ><b :title="name">{{ name }}</b
            ><span
              >there: {{ formatSize(file.size) }}, {{ shortDate(file.changed)
              }}{{ file.uses ? `, ${counted(file.uses, 'place')}` : ', not used' }}</span
            ></span
          >
          <ChoiceField
            class="choices"
            :legend="`What becomes of ${name}`"
            unseen
            :choices="ORDER.map(way => [way, WAY_WORDS[way]] as const)"
            :value="ways[name]"
            @choose="ways[name] = $event"
          />
        </li>
      </ul>
      <div class="acts">
        <VBtn v-focus type="submit" variant="flat">Go on</VBtn><VBtn @click="clashes.open?.answer(undefined)">Put nothing in</VBtn>
      </div>
    </form>
  </VDialog>
</template>

<style scoped>
.all {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
ul {
  list-style: none;
  width: 100%;
  margin: 0;
  padding: 0;
  max-height: 300px;
  overflow: auto;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  padding: 7px 2px;
  border-bottom: 1px solid var(--line);
}
.name {
  flex: 1 1 200px;
  min-width: 0;
  display: grid;
}
.name b {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.name span {
  color: var(--soft);
  font-size: 12.5px;
}
.choices {
  flex: 0 0 auto;
}
</style>
