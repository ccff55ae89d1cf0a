<script setup lang="ts">
import { missesSchema, type Misses } from '~~/core/tally/occasions'
import { mayOpen } from '~/rights/boards'

/** Addresses of the site that visitors followed though nothing is there: found by what they did, not by walking. */
const rights = useRights()
const allowed = mayOpen(rights, '/desk/downloads')
const missing = shallowRef<Misses['missing']>([])
const { problem, attempt } = useAttempt()
/** Fewer may be slips in typing. */
const OFTEN = 5
const MOST = 5
onMounted(async () => {
  if (!allowed) return
  await attempt(async () => {
    const found = await ask(missesSchema, '/downloads/misses?span=30')
    missing.value = found.missing
      .filter(({ count }) => count >= OFTEN)
      .slice(0, MOST)
      // Some say nothing of where they came from.
      .map(({ from, ...one }) => ({ ...one, from: from.filter(({ key }) => key) }))
  })
})
</script>

<template>
  <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  <section v-if="missing.length" aria-labelledby="asked-in-vain">
    <CostHeading id="asked-in-vain" cost="hard">Asked for in vain</CostHeading>
    <p class="hint">In the last 30 days visitors followed these addresses, and nothing is there.</p>
    <ul>
      <li v-for="{ key, count, from } in missing" :key="key">
        <span class="mono">{{ key }}</span>
        <span class="hint">
          {{ counted(count, 'time') }}<template v-if="from.length">, followed on {{ from.map(each => each.key).join(', ') }}</template>
        </span>
      </li>
    </ul>
    <p class="acts">
      <VBtn v-if="mayOpen(rights, '/desk/old-addresses')" to="/desk/old-addresses" variant="outlined">Lead them somewhere</VBtn>
      <VBtn to="/desk/downloads?show=misses">All that was missed</VBtn>
    </p>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  padding: 6px 0;
  border-top: 1px solid var(--line);
  overflow-wrap: anywhere;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  padding: 8px 0;
}
</style>
