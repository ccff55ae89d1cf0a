<script setup lang="ts">
import { CORNERS, HEADS, PAPER_ADDRESSES, RHYTHMS, SCALES, SHELF_LINES, type SiteStyle } from '~~/core/look/siteStyle'
import { DEFAULT_DARK } from '~~/core/look/palette'
import type { Role } from '~~/core/look/colour'
import { ROLES, hexSchema } from '~~/core/look/colour'
import { LEAST, contrast, nearestPassing } from '~~/core/look/contrast'
import type { Palette } from '~~/core/look/palette'
import { TYPEFACES, typefaceOf, type TypefaceId } from '~~/core/look/typefaces'
import { ROLE_WORDS } from '~/editor/words'

/** The colours and type of the site: one change here is a change everywhere. */
const looks = useLooks()
const notices = useNotices()
const { problem, attempt } = useAttempt()

/** What has to be read on what. */
const READ_ON = [
  ['ink', 'paper'],
  ['soft', 'paper'],
  ['accent', 'paper'],
  ['onAccent', 'accent'],
  ['onAccent', 'accentDark'],
] as const satisfies [Role, Role][]
/** which of the two sets of colours is worked on */
const scheme = ref<'palette' | 'dark'>('palette')
const palette = computed(() => (scheme.value === 'dark' && looks.style.dark) || looks.style.palette)
const failing = computed(() =>
  READ_ON.flatMap(([words, ground]) => {
    const ratio = contrast(palette.value[words], palette.value[ground])
    return ratio >= LEAST.words
      ? []
      : [{ words, ground, ratio, nearest: nearestPassing(palette.value[words], [palette.value[ground]], LEAST.words) }]
  }),
)

const save = (style: typeof looks.style) => attempt(() => looks.setStyle(style))
const saveSoon = useDebounceFn(save, 400)

/** Shown at once, saved when the hand rests. */
function setColour(role: Role, text: string) {
  const result = hexSchema.safeParse(text.startsWith('#') ? text : `#${text}`)
  problem.value = result.success ? '' : result.error.issues[0]!.message
  if (!result.success) return
  const changed: Palette = { ...palette.value, [role]: result.data }
  looks.style = { ...looks.style, [scheme.value]: changed }
  void saveSoon(looks.style)
}

async function set(changed: Partial<SiteStyle>) {
  const before = looks.style
  if (!(await save({ ...before, ...changed }))) return
  notices.say('All pages are set anew.', { action: { label: 'Undo', run: () => void save(before) } })
}
const typefaces = computed(() => [
  ...Object.entries(TYPEFACES).map(([value, { title }]) => ({ value, title })),
  ...looks.style.own.map(({ id, name }) => ({ value: id, title: name })),
])
const setType = (part: 'heading' | 'text', typeface: TypefaceId) => set({ type: { ...looks.style.type, [part]: typeface } })

/** Readers with a dark screen get the page in other colours, or in the same. */
async function setDark(own: boolean) {
  if (!own) scheme.value = 'palette'
  await set({ dark: own ? DEFAULT_DARK : null })
  if (own) scheme.value = 'dark'
}

const ROOM_FIELDS = [
  { name: 'scale', words: 'Headings', choices: SCALES.map((value, index) => [value, ['Small', 'Even', 'Grand'][index]!] as const) },
  { name: 'rhythm', words: 'Room', choices: RHYTHMS.map((value, index) => [value, ['Close', 'Even', 'Airy'][index]!] as const) },
  { name: 'corners', words: 'Corners', choices: CORNERS.map((value, index) => [value, ['Square', 'Soft', 'Round'][index]!] as const) },
  {
    name: 'head',
    words: 'Name and menu',
    choices: HEADS.map((value, index) => [value, ['Beside', 'Centred', 'On a band', 'Over a picture'][index]!] as const),
  },
  {
    name: 'shelves',
    words: 'Lines of shelves',
    choices: SHELF_LINES.map((value, index) => [value, ['Ruled', 'Boxed', 'Banded'][index]!] as const),
  },
] as const
const PAPER_CHOICES = PAPER_ADDRESSES.map((value, index) => [value, ['None', 'Outside the site', 'All'][index]!] as const)
const setPaper = (changed: Partial<SiteStyle['paper']>) => set({ paper: { ...looks.style.paper, ...changed } })

const valueOf = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <section class="style" aria-label="Colours and type of the site">
    <h2>Colours <span>All pages and looks follow at once</span></h2>
    <div class="schemes">
      <ChoiceField
        v-if="looks.style.dark"
        legend="For screens that are"
        :choices="[
          ['palette', 'Light'],
          ['dark', 'Dark'],
        ]"
        :value="scheme"
        @choose="scheme = $event"
      />
      <VCheckbox label="Other colours on dark screens" :model-value="looks.style.dark !== null" @update:model-value="setDark(!!$event)" />
    </div>
    <div class="palette">
      <div v-for="role in ROLES" :key="role" class="role">
        <span aria-hidden="true">{{ ROLE_WORDS[role] }}</span>
        <ColourPick :words="ROLE_WORDS[role]" :hex="palette[role]" @change="setColour(role, $event)" />
        <VTextField
          class="hex small"
          maxlength="7"
          spellcheck="false"
          :aria-label="`${ROLE_WORDS[role]}, as # and six digits`"
          :model-value="palette[role]"
          @change="setColour(role, valueOf($event))"
        />
      </div>
    </div>
    <p v-for="{ words, ground, ratio, nearest } in failing" :key="`${words} ${ground}`" class="hint clay" role="status">
      {{ ROLE_WORDS[words] }} on {{ ROLE_WORDS[ground].toLowerCase() }}: {{ (Math.floor(ratio * 10) / 10).toFixed(1) }} to 1, and
      {{ LEAST.words }} to 1 is needed to read it.
      <VBtn v-if="nearest" @click="setColour(words, nearest)">Take {{ nearest }}</VBtn>
    </p>
    <p v-if="problem" class="hint clay" role="alert">{{ problem }}</p>
    <h2>Type</h2>
    <div class="type">
      <VSelect
        v-for="[part, title] in [
          ['heading', 'Headings'],
          ['text', 'Text'],
        ] as const"
        :key="part"
        :label="title"
        :model-value="looks.style.type[part]"
        :items="typefaces"
        :style="{ '--typeface': typefaceOf(looks.style.type[part], looks.style.own).family }"
        @update:model-value="setType(part, $event)"
      />
    </div>
    <OwnTypefaces @set="set" />
    <h2>Room and head</h2>
    <div class="room">
      <div v-for="{ name, words, choices } in ROOM_FIELDS" :key="name">
        <ChoiceField :legend="words" :choices="choices" :value="looks.style[name]" @choose="set({ [name]: $event })" />
        <p v-if="name === 'head' && looks.style.head === 'over'" class="hint">
          On pages that begin with a section over a picture; on others, beside each other above.
        </p>
      </div>
    </div>
    <h2>On paper</h2>
    <div class="room">
      <ChoiceField
        legend="Addresses behind links"
        :choices="PAPER_CHOICES"
        :value="looks.style.paper.addresses"
        @choose="setPaper({ addresses: $event })"
      />
      <VCheckbox
        label="A code at the end that phones open the page by"
        :model-value="looks.style.paper.code"
        @update:model-value="setPaper({ code: !!$event })"
      />
    </div>
  </section>
</template>

<style scoped>
h2 {
  font-size: 15px;
  font-weight: 600;
  margin: 16px 0 6px;
}
.style > h2:first-child {
  margin-top: 0;
}
h2 span {
  font-weight: 400;
  font-size: 12.5px;
  color: var(--soft);
  margin-left: 8px;
}
.palette {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(92px, 1fr));
  gap: 8px;
  margin-bottom: 6px;
}
.role {
  --patch-width: 100%;
  --patch-height: 36px;
  display: grid;
  gap: 3px;
  font-size: 12.5px;
  align-content: start;
}
.role > span {
  color: var(--soft);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.schemes {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 4px 18px;
  margin-bottom: 8px;
}
.room {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
  gap: 10px 18px;
}
.type :deep(.v-select__selection) {
  font-family: var(--typeface);
}
.type {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  max-width: 440px;
}
</style>
