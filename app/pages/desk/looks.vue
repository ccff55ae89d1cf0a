<script setup lang="ts">
import type { Appearance } from '~~/core/look/appearance'
import { contrastOf } from '~~/core/look/contrastCheck'
import type { Look } from '~~/core/look/look'
import { TONES } from '~~/core/look/palette'
import { buttonInner } from '~~/core/page/button'
import { contentCss } from '~~/core/page/pageCss'
import { TONE_CHOICES } from '~/editor/words'

/** All looks of the site as they stand on each background, and the colours and type that feed them. */
const looks = useLooks()
const notices = useNotices()
const failure = ref('')
const { problem, attempt } = useAttempt()
const chosenId = useSessionStorage('trough-look', 'slab')
const chosen = computed(() => looks.lookOf(chosenId.value))
const usesOf = (look: Look) => looks.uses.filter(use => use.look === look.id)
const sampleOf = usePictureSamples()
const failing = (look: Look) =>
  TONES.filter(tone => contrastOf(look.appearance, looks.palettes[tone], sampleOf).some(result => !result.passes))
const TONE_WORDS = Object.fromEntries(TONE_CHOICES)

/** Nothing is changed before all is here: it would be shown as it was when that arrives. */
const opened = ref(false)
async function load() {
  failure.value = ''
  try {
    await looks.load()
    opened.value = true
  } catch (error) {
    failure.value = wordsOf(error)
  }
}

const unsaved = new Set<string>()
const save = useDebounceFn(
  () =>
    attempt(async () => {
      const ids = [...unsaved]
      unsaved.clear()
      await Promise.all(ids.map(id => looks.change(id, looks.lookOf(id).appearance)))
    }),
  400,
)
/** Shown at once, saved when the hand rests. */
function change(changed: Partial<Appearance>) {
  const { id, appearance } = chosen.value
  looks.show(id, { ...appearance, ...changed })
  unsaved.add(id)
  void save()
}

function freeName(name: string): string {
  const taken = new Set(looks.items.map(look => look.name))
  return [name, ...Array.from({ length: 200 }, (_, index) => `${name} ${index + 2}`)].find(each => !taken.has(each))!
}

const copy = (look: Look) =>
  attempt(async () => {
    const made = await looks.create({ name: freeName(`${look.name}, ours`), appearance: look.appearance })
    chosenId.value = made.id
  })

async function rename(event: Event) {
  const field = event.target as HTMLInputElement
  if (!(await attempt(() => looks.rename(chosen.value.id, field.value)))) field.value = chosen.value.name
}

const replacing = ref('')
async function remove() {
  const { id, name } = chosen.value
  if (await attempt(() => looks.remove(id, usesOf(chosen.value).length ? replacing.value || 'slab' : undefined))) {
    chosenId.value = 'slab'
    notices.say(`The look “${name}” is gone.`, {})
  }
}

async function takeIn() {
  const [file] = await chooseFiles({ multiple: false })
  if (!file) return
  await attempt(async () => {
    let tokens: unknown
    try {
      tokens = JSON.parse(await file.text())
    } catch {
      throw new Error(`“${file.name}” is not JSON. Choose a file of the Design Tokens format.`)
    }
    const { added, palette } = await looks.takeTokens(tokens, false)
    notices.say(`Taken in: ${added.map(name => `“${name}”`).join(', ') || 'no look'}.`, {
      tone: 'works',
      action: palette
        ? {
            label: 'Its colours, too',
            run: () => void attempt(() => looks.takeTokens({ palette: (tokens as { palette: unknown }).palette }, true)),
          }
        : undefined,
    })
  })
}

onMounted(load)
useHead({ title: 'Looks', style: [{ innerHTML: () => contentCss(looks.style) + looks.css, key: 'page-content' }] })
</script>

<template>
  <div class="looks">
    <header class="board-head">
      <h1>Looks</h1>
      <span class="acts">
        <a
          class="plain"
          href="/api/looks/tokens"
          download="looks.tokens.json"
          title="All looks and colours, in the open Design Tokens format"
          >Save as a file</a
        >
        <VBtn @click="takeIn">Take in from a file…</VBtn>
        <VBtn variant="outlined" @click="copy(chosen)">New look from “{{ chosen.name }}”</VBtn>
      </span>
    </header>
    <p v-if="failure" class="failure" role="alert">{{ failure }} <VBtn @click="load">Try again</VBtn></p>
    <div v-else-if="opened" class="scroll">
      <div class="desk-top">
        <div class="sheet">
          <StyleGallery />
          <StyleFields />
          <h2>Buttons <span>Click one to change it</span></h2>
          <div class="tones" aria-hidden="true">
            <span v-for="tone in TONES" :key="tone">{{ TONE_WORDS[tone] }}</span>
          </div>
          <ul class="rack">
            <li v-for="look in looks.items" :key="look.id" :class="{ chosen: look.id === chosen.id }">
              <VBtn color="ink" class="name" :aria-pressed="look.id === chosen.id" @click="chosenId = look.id">
                <b>{{ look.name }}</b>
                <span>{{
                  usesOf(look).length ? `on ${counted(usesOf(look).length, 'button')}` : look.builtIn ? 'always there' : 'on no button yet'
                }}</span>
                <span v-if="failing(look).length" class="hard">hard to read</span>
              </VBtn>
              <div v-for="tone in TONES" :key="tone" class="tr-page specimen" :class="`tr-tone-${tone}`" @click="chosenId = look.id">
                <!-- Drawn by the renderer's own function, which escapes what is written in it. -->
                <!-- eslint-disable-next-line vue/no-v-html -->
                <span
                  class="tr-button"
                  :class="`tr-look-${look.id}`"
                  v-html="buttonInner({ label: 'Price list', note: 'PDF, 240 kB', locked: false, spoken: '' }, look.appearance)"
                />
              </div>
            </li>
          </ul>
          <FileIcons />
        </div>
        <section class="margin" :aria-label="`Settings of the look ${chosen.name}`">
          <div class="note">
            <VTextField v-if="!chosen.builtIn" :key="chosen.id" label="Name" maxlength="60" :model-value="chosen.name" @change="rename" />
            <template v-else>
              <h2>{{ chosen.name }}</h2>
              <p class="hint">It comes with Trough and stays as it is. Its colours follow yours. Make a look from it to change more.</p>
              <VBtn variant="outlined" @click="copy(chosen)">New look from “{{ chosen.name }}”</VBtn>
            </template>
            <p v-if="problem" class="hint clay" role="alert">{{ problem }}</p>
            <AppearanceFields v-if="!chosen.builtIn" :appearance="chosen.appearance" :palette="looks.palettes.plain" @change="change" />
            <ContrastLines v-else :appearance="chosen.appearance" :palette="looks.palettes.plain" />
            <div class="where">
              <h3>Where it is</h3>
              <p v-if="!usesOf(chosen).length" class="hint">On no button yet. Choose it in the margin of any button.</p>
              <ul v-else>
                <li v-for="use in usesOf(chosen)" :key="`${use.pageId} ${use.placement}`">
                  <NuxtLink :to="placeOnPage(use.pageId, use.placement)">{{ use.pageTitle }}</NuxtLink>: {{ use.label || 'without a label'
                  }}<template v-if="use.section">, under “{{ use.section }}”</template><span v-if="!use.live" class="hint"> (draft)</span>
                </li>
              </ul>
            </div>
            <div v-if="!chosen.builtIn" class="acts">
              <VSelect
                v-if="usesOf(chosen).length"
                v-model="replacing"
                label="Its buttons get"
                :items="looks.items.filter(each => each.id !== chosen.id)"
                item-title="name"
                item-value="id"
              />
              <VBtn :disabled="usesOf(chosen).length > 0 && !replacing" @click="remove"> Delete this look </VBtn>
            </div>
          </div>
        </section>
      </div>
    </div>
  </div>
</template>

<style scoped>
.looks {
  display: flex;
  flex-direction: column;
  min-height: 0;
  flex: 1;
}
.failure {
  padding: 20px;
}
.scroll {
  flex: 1;
  min-height: 0;
  overflow: auto;
  background: var(--grey);
}
.desk-top {
  display: grid;
  grid-template-columns: minmax(0, 760px) 300px;
  justify-content: center;
  padding: 14px;
  min-height: 100%;
  align-items: start;
}
.sheet {
  background: #fff;
  border: 1px solid var(--line);
  padding: 16px 18px 30px;
  min-width: 0;
}
h2 {
  font-size: 15px;
  font-weight: 600;
  margin: 22px 0 6px;
}
h2 span {
  font-weight: 400;
  font-size: 12.5px;
  color: var(--soft);
  margin-left: 8px;
}
.tones,
.rack li {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
}
.tones {
  color: var(--soft);
  font-size: 12.5px;
}
.tones span {
  padding-left: 12px;
}
.rack {
  list-style: none;
  margin: 0;
  padding: 0;
  border-top: 1px solid var(--line);
}
.rack li {
  border-bottom: 1px solid var(--line);
  border-left: 4px solid transparent;
}
.rack .chosen {
  border-left-color: var(--water);
  background: #edf3f2;
}
.name {
  grid-column: 1 / -1;
  justify-content: start;
  overflow-wrap: anywhere;
}
.name :deep(.v-btn__content) {
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 10px;
}
.name span {
  color: var(--soft);
  font-size: 12px;
}
.name .hard {
  color: #9a4420;
  font-weight: 600;
}
.specimen {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  align-items: center;
  justify-items: center;
  min-width: 0;
  padding: 14px 12px;
  background: var(--paper);
  cursor: pointer;
  overflow: hidden;
  container-type: normal;
}
.specimen .tr-button {
  zoom: 0.78;
  max-width: 100%;
}
.margin {
  min-width: 0;
  position: sticky;
  top: 14px;
  max-height: calc(100dvh - 166px);
  overflow: auto;
}
.note {
  padding: 12px;
  background: #f5f8f7;
  border: 1px solid var(--line);
  border-left: 3px solid var(--water);
  border-radius: 0 4px 4px 0;
  display: grid;
  gap: 10px;
  margin-left: -1px;
}
.note h2 {
  margin: 0;
}
.note > .plain {
  justify-self: start;
}
h3 {
  font-size: 13px;
  font-weight: 600;
  margin-bottom: 3px;
}
.where {
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
.where ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 3px;
}
.where a {
  color: var(--water);
}
.acts {
  border-top: 1px solid var(--line);
  padding-top: 8px;
  display: grid;
  gap: 6px;
  justify-items: start;
}
.board-head .acts {
  border: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
}
@container (max-width: 760px) {
  .desk-top {
    grid-template-columns: minmax(0, 1fr);
    padding: 0;
  }
  .margin {
    position: static;
    max-height: none;
  }
  .note {
    margin: 0;
    border-radius: 0;
  }
}
@container (max-width: 520px) {
  .board-head {
    flex-wrap: wrap;
    height: auto;
    padding-block: 6px;
  }
  .specimen {
    padding-inline: 4px;
  }
  .specimen .tr-button {
    zoom: 0.6;
  }
}
</style>
