<script setup lang="ts">
import { z } from 'zod'
import { mdiCheck } from '@mdi/js'

const listSchema = z.object({
  items: z.array(z.object({ name: z.enum(['office', 'film', 'cage']), found: z.boolean(), debian: z.string() })),
})
/** What each program is for, with it and without. */
const WORDS = {
  office: {
    name: 'LibreOffice',
    gives: 'Draws the pages of Word, OpenDocument, RTF and slides, to leaf through on the desk and for visitors.',
    without: 'Without it, their words are found and shown all the same.',
  },
  film: { name: 'ffmpeg', gives: 'Takes a still of each film.', without: 'Without it, films stand there with the name of their type.' },
  cage: {
    name: 'bubblewrap',
    gives: 'Keeps the two from the network, and from every file but the one they read.',
    without: 'Without it, their time, memory and disk are limited all the same.',
  },
}

/** The programs of this machine that read more than Trough does by itself. */
const items = ref<z.infer<typeof listSchema>['items']>([])
const { problem, attempt } = useAttempt()
const missing = computed(() => items.value.filter(({ found }) => !found).map(({ debian }) => debian))
onMounted(() => attempt(async () => (items.value = (await ask(listSchema, '/programs')).items)))
</script>

<template>
  <section aria-labelledby="programs-head" class="programs">
    <h2 id="programs-head">Programs of this machine</h2>
    <p class="hint">Trough reads files by itself. Where these are installed, it shows more of them.</p>
    <ul>
      <li v-for="{ name, found } in items" :key="name">
        <VIcon v-if="found" :icon="mdiCheck" size="18" class="there" />
        <span v-else class="away" aria-hidden="true">–</span>
        <div>
          <b>{{ WORDS[name].name }}</b> <span class="state">{{ found ? 'is here' : 'is not here' }}</span>
          <p>{{ WORDS[name].gives }} {{ found ? '' : WORDS[name].without }}</p>
        </div>
      </li>
    </ul>
    <template v-if="missing.length">
      <p class="hint">On Debian they are installed so; then start Trough again, and it reads what it has once more:</p>
      <CopyLine name="Command" :address="`apt install --no-install-recommends ${missing.join(' ')}`" />
    </template>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
.programs {
  max-width: 560px;
  margin-top: 28px;
}
ul {
  list-style: none;
  margin: 10px 0 12px;
  padding: 0;
  border-top: 1px solid var(--line);
}
li {
  display: grid;
  grid-template-columns: 24px 1fr;
  gap: 6px;
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}
li p {
  margin: 2px 0 0;
  line-height: 1.4;
}
.there {
  color: var(--moss);
}
.away {
  color: var(--soft);
  text-align: center;
}
.state {
  color: var(--soft);
  font-size: 12.5px;
}
</style>
