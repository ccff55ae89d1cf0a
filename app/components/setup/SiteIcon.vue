<script setup lang="ts">
import { z } from 'zod'

const iconSchema = z.object({ own: z.boolean() })
/** The site's icon in tabs and bookmarks: a picture of the library, or the initial that is drawn. */
const { problem, attempt } = useAttempt()
const session = useSession()
const finding = ref(false)
const own = ref(false)
/** what was shown before is kept by the browser for a while */
const turn = ref(0)
const address = computed(() => `/favicon.ico?${turn.value}-${encodeURIComponent(session.site.name)}`)

onMounted(() =>
  attempt(async () => {
    own.value = (await ask(iconSchema, '/site/icon')).own
  }),
)

const choose = (file: string | null) =>
  attempt(async () => {
    own.value = (await ask(iconSchema, '/site/icon', 'PUT', { file })).own
    finding.value = false
    turn.value++
  })
</script>

<template>
  <div class="field" role="group" aria-label="Icon of the site">
    <span>Icon in tabs and bookmarks</span>
    <span class="acts">
      <img :src="address" width="32" height="32" :alt="own ? 'The picture that was chosen' : 'The initial of the site in its colours'" />
      <VBtn variant="outlined" @click="finding = !finding">{{ own ? 'Another…' : 'Choose a picture…' }}</VBtn>
      <VBtn v-if="own" @click="choose(null)">Draw it from the name</VBtn>
    </span>
    <FileFinder v-if="finding" label="Find a picture" :types="['picture']" @choose="choose($event.id)" @close="finding = false" />
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
img {
  object-fit: contain;
  border: 1px solid var(--line);
  border-radius: 4px;
}
</style>
