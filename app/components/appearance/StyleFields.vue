<script setup lang="ts">
import type { Role } from '~~/core/look/colour'
import { ROLES, hexSchema } from '~~/core/look/colour'
import { LEAST, contrast, nearestPassing } from '~~/core/look/contrast'
import type { Palette } from '~~/core/look/palette'
import { TYPEFACES, type TypefaceName } from '~~/core/look/typefaces'
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
const palette = computed(() => looks.style.palette)
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
  looks.style = { ...looks.style, palette: changed }
  void saveSoon(looks.style)
}

async function setType(part: 'heading' | 'text', event: Event) {
  const before = looks.style
  if (!(await save({ ...before, type: { ...before.type, [part]: (event.target as HTMLSelectElement).value as TypefaceName } }))) return
  notices.say('All pages are set anew.', { action: { label: 'Undo', run: () => void save(before) } })
}

const valueOf = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <section class="style" aria-label="Colours and type of the site">
    <h2>Colours <span>All pages and looks follow at once</span></h2>
    <div class="palette">
      <div v-for="role in ROLES" :key="role" class="role">
        <span aria-hidden="true">{{ ROLE_WORDS[role] }}</span>
        <label class="patch" :style="{ background: palette[role] }"
          ><span class="tr-spoken">{{ ROLE_WORDS[role] }}</span
          ><input type="color" :value="palette[role].toLowerCase()" @input="setColour(role, valueOf($event))"
        /></label>
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
      <button v-if="nearest" type="button" class="plain" @click="setColour(words, nearest)">Take {{ nearest }}</button>
    </p>
    <p v-if="problem" class="hint clay" role="alert">{{ problem }}</p>
    <h2>Type</h2>
    <div class="type">
      <label
        v-for="[part, title] in [
          ['heading', 'Headings'],
          ['text', 'Text'],
        ] as const"
        :key="part"
        class="field"
        ><span>{{ title }}</span>
        <select
          :value="looks.style.type[part]"
          :style="{ fontFamily: TYPEFACES[looks.style.type[part]].family }"
          @change="setType(part, $event)"
        >
          <option v-for="(typeface, name) in TYPEFACES" :key="name" :value="name">{{ typeface.title }}</option>
        </select>
      </label>
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
.patch {
  display: block;
  height: 36px;
  border: 1px solid #7e8d89;
  border-radius: 4px;
}
.patch:focus-within {
  outline: 2px solid var(--water);
  outline-offset: 2px;
}
.patch input {
  width: 100%;
  height: 100%;
  opacity: 0;
  cursor: pointer;
  padding: 0;
  border: 0;
}
.type {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  max-width: 440px;
}
select {
  height: 30px;
  border: 1px solid #95a39f;
  border-radius: 4px;
  background: #fff;
  padding: 0 6px;
}
</style>
