<script setup lang="ts">
import { COSTS, type WalkSummary } from '~~/core/walk/finding'

/** How much was found on each earlier walk, one strip a walk, the newest on the right. */
const props = defineProps<{ walks: readonly WalkSummary[] }>()
const total = ({ counts }: WalkSummary) => COSTS.reduce((sum, cost) => sum + counts[cost], 0)
const most = computed(() => Math.max(1, ...props.walks.map(total)))
const told = (walk: WalkSummary) => `${longDate(walk.at)}: ${counted(total(walk), 'finding')}`
</script>

<template>
  <div class="history">
    <ol aria-label="Earlier walks">
      <li v-for="walk in walks" :key="walk.at" :title="told(walk)">
        <span class="tr-spoken">{{ told(walk) }}</span>
        <i v-for="cost in COSTS" :key="cost" :class="cost" :style="{ height: `${(40 * walk.counts[cost]) / most}px` }" />
      </li>
    </ol>
    <p class="hint">Findings on the last {{ walks.length }} walks</p>
  </div>
</template>

<style scoped>
ol {
  list-style: none;
  display: flex;
  align-items: flex-end;
  justify-content: flex-end;
  gap: 2px;
  height: 42px;
  margin: 0;
  padding: 0;
  border-bottom: 1px solid #7e8d89;
}
li {
  display: flex;
  flex-direction: column;
  width: 7px;
}
.blocked {
  background: #9a4420;
}
.misled {
  background: var(--straw);
}
.hard {
  background: #7e9c98;
}
.tidy {
  background: #bfcbc9;
}
.hint {
  text-align: right;
}
@container (max-width: 520px) {
  ol {
    justify-content: flex-start;
  }
  .hint {
    text-align: left;
  }
}
</style>
