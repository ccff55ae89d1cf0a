<script setup lang="ts">
import { bringAddressesSchema, type OldAddressList } from '~~/core/oldAddresses/oldAddressItem'

/** Addresses the site had before it moved here, and what each leads to from now on. */
const old = useOldAddresses()
const { q, show } = storeToRefs(old)
const failure = ref('')
const busy = ref(false)
const bringing = ref(false)
const { problem, attempt } = useAttempt()
useHead({ title: 'Old addresses' })

const NONE = { items: [], total: 0, open: 0, missed: 0, led: 0 } satisfies OldAddressList
const SHOWN = [
  ['open', 'Lead nowhere yet'],
  ['led', 'Lead on'],
] as const
const list = computed(() => old.list ?? NONE)
const shown = computed(() =>
  SHOWN.map(([name, words]) => [name, `${words}, ${(name === 'open' ? list.value.open : list.value.led).toLocaleString()}`] as const),
)
const none = computed(() => old.list && !old.list.open && !old.list.led)

async function load() {
  failure.value = ''
  try {
    await old.load()
  } catch (error) {
    failure.value = wordsOf(error)
  }
}
onMounted(load)
watch(() => old.show, load)
watch(() => old.q, useDebounceFn(load, 200))

const pasting = useForm({
  schema: bringAddressesSchema,
  begin: () => ({ text: '' }),
  send: async ({ text }) => {
    await old.bring(text)
    bringing.value = false
    pasting.reset()
  },
})
async function bringFile(file: File | undefined) {
  if (!file) return
  busy.value = true
  if (await attempt(async () => old.bring(await file.text()))) bringing.value = false
  busy.value = false
}
const chooseList = async () => bringFile((await chooseFiles({ multiple: false }))[0])
const { over, target } = useDropOn(false, async ({ files }) => bringFile((await files)?.[0]?.file))
</script>

<template>
  <div v-drop="target" class="old" :class="{ over }">
    <header class="board-head">
      <NuxtLink to="/desk/setup/moving" class="back">Setup</NuxtLink>
      <h1>Old addresses</h1>
      <VBtn v-if="!none" variant="outlined" @click="bringing = !bringing">Bring in a list…</VBtn>
    </header>
    <p v-if="failure" class="say" role="alert">{{ failure }} <VBtn @click="load">Try again</VBtn></p>
    <VSkeletonLoader v-else-if="!old.list" type="list-item@12" loading-text="Reading the addresses…" />
    <template v-else>
      <section v-if="bringing || none" class="bring" aria-label="Bring in a list">
        <template v-if="none">
          <p><b>Did the site live somewhere else before?</b></p>
          <p>
            Bring in the addresses it had, and say what took the place of each. Whoever still follows an old link, from a letter or a search
            engine, is led on for good.
          </p>
        </template>
        <div class="acts">
          <VBtn variant="outlined" :disabled="busy" @click="chooseList">
            {{ busy ? 'Reading…' : 'Choose a list…' }}
          </VBtn>
          <span class="hint"
            >A sitemap (XML), a page of the old site (HTML), or a table (CSV): the old address first, then, if you like, the new one. Or
            drop it here.</span
          >
        </div>
        <VForm class="paste" @submit.prevent="pasting.submit">
          <VTextarea
            v-bind="pasting.field('text')"
            label="Or paste addresses, one a line"
            rows="4"
            spellcheck="false"
            placeholder="https://old.example/downloads/price-list.pdf"
          />
          <div class="acts">
            <VBtn type="submit" variant="outlined" :loading="pasting.busy.value">Bring these in</VBtn
            ><VBtn v-if="!none" @click="bringing = false">Cancel</VBtn>
          </div>
          <p v-if="pasting.problem.value" class="problem" role="alert">{{ pasting.problem.value }}</p>
        </VForm>
      </section>
      <p v-if="problem" class="problem say" role="alert">{{ problem }}</p>
      <template v-if="!none">
        <div class="bar">
          <ChoiceField legend="Shown" unseen :choices="shown" :value="old.show" @choose="show = $event" />
          <VTextField v-model="q" type="search" placeholder="Part of an address" aria-label="Part of an address" />
          <VBtn v-if="old.show === 'open' && list.open" variant="outlined" @click="attempt(old.takeSuggestions)">
            Take all sure suggestions
          </VBtn>
        </div>
        <p v-if="old.show === 'open' && list.missed" class="say missed">
          {{ counted(list.missed, 'of these is', 'of these are') }} still asked for. They stand first.
        </p>
        <OldAddressTable :list="list" @turn="load" />
      </template>
    </template>
  </div>
</template>

<style scoped>
.old {
  flex: 1;
  min-height: 0;
  overflow: auto;
}
.old.over {
  box-shadow: inset 0 0 0 3px var(--water);
}
.board-head {
  position: sticky;
  top: 0;
  z-index: 2;
}
.say {
  padding: 12px 16px;
}
.missed {
  color: #9a4420;
  font-weight: 600;
  padding-bottom: 4px;
}
.bring {
  display: grid;
  gap: 10px;
  padding: 14px 16px;
  background: #fff;
  border-bottom: 1px solid var(--line);
  line-height: 1.5;
}
.bring p {
  max-width: 640px;
}
.paste {
  display: grid;
  gap: 6px;
  max-width: 560px;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  padding: 10px 16px;
}
.bar > .v-text-field {
  flex: 1 1 160px;
}
</style>
