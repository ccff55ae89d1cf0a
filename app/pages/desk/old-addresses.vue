<script setup lang="ts">
/** Addresses the site had before it moved here, and what each leads to from now on. */
const old = useOldAddresses()
const failure = ref('')
const busy = ref(false)
const bringing = ref(false)
const text = ref('')
const { problem, attempt } = useAttempt()
useHead({ title: 'Old addresses' })

const SHOWN = [
  ['open', 'Lead nowhere yet'],
  ['led', 'Lead on'],
] as const
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

async function bring(list: string) {
  busy.value = true
  if (await attempt(() => old.bring(list))) {
    bringing.value = false
    text.value = ''
  }
  busy.value = false
}
async function bringFile(file: File | undefined) {
  if (file) await bring(await file.text())
}
const chooseList = async () => bringFile((await chooseFiles({ multiple: false }))[0])
const { over, takes } = useDropOn(false, async event => bringFile((await droppedFiles(event))[0]?.file))
</script>

<template>
  <div class="old" :class="{ over }" v-on="takes">
    <header class="board-head">
      <NuxtLink to="/desk/setup" class="back">Setup</NuxtLink>
      <h1>Old addresses</h1>
      <button v-if="!none" type="button" class="plain strong" @click="bringing = !bringing">Bring in a list…</button>
    </header>
    <p v-if="failure" class="say" role="alert">{{ failure }} <button type="button" class="plain" @click="load">Try again</button></p>
    <p v-else-if="!old.list" class="say hint" role="status">Reading the addresses…</p>
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
          <button type="button" class="plain strong" :disabled="busy" @click="chooseList">
            {{ busy ? 'Reading…' : 'Choose a list…' }}
          </button>
          <span class="hint"
            >A sitemap (XML), a page of the old site (HTML), or a table (CSV): the old address first, then, if you like, the new one. Or
            drop it here.</span
          >
        </div>
        <form class="paste" @submit.prevent="bring(text)">
          <label class="field"
            ><span>Or paste addresses, one a line</span
            ><textarea v-model="text" rows="4" spellcheck="false" placeholder="https://old.example/downloads/price-list.pdf" />
          </label>
          <div class="acts">
            <button type="submit" class="plain strong" :disabled="busy || !text.trim()">Bring these in</button
            ><button v-if="!none" type="button" class="plain" @click="bringing = false">Cancel</button>
          </div>
        </form>
      </section>
      <p v-if="problem" class="problem say" role="alert">{{ problem }}</p>
      <template v-if="!none">
        <div class="bar">
          <fieldset class="field">
            <legend class="tr-spoken">Shown</legend>
            <div class="choices">
              <label v-for="[name, words] in SHOWN" :key="name"
                ><input v-model="old.show" type="radio" name="old-shown" :value="name" /><span
                  >{{ words }}, {{ (name === 'open' ? old.list.open : old.list.led).toLocaleString() }}</span
                ></label
              >
            </div>
          </fieldset>
          <input v-model="old.q" type="search" placeholder="Part of an address" aria-label="Part of an address" />
          <button v-if="old.show === 'open' && old.list.open" type="button" class="plain strong" @click="attempt(old.takeSuggestions)">
            Take all sure suggestions
          </button>
        </div>
        <p v-if="old.show === 'open' && old.list.missed" class="say missed">
          {{ counted(old.list.missed, 'of these is', 'of these are') }} still asked for. They stand first.
        </p>
        <ul class="rows">
          <OldAddressRow v-for="address in old.list.items" :key="address.path" :address="address" />
        </ul>
        <p v-if="!old.list.items.length" class="say hint">
          {{ old.q ? 'No address has that in it.' : old.show === 'open' ? 'Every old address leads somewhere.' : 'None leads on yet.' }}
        </p>
        <p v-else-if="old.list.items.length < old.list.total" class="say">
          <button type="button" class="plain strong" @click="attempt(old.more)">Show more of {{ old.list.total.toLocaleString() }}</button>
        </p>
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
.choices span {
  padding: 0 10px;
}
.rows {
  list-style: none;
  margin: 0;
  padding: 0;
  border-top: 1px solid var(--line);
}
</style>
