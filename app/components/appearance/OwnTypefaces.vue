<script setup lang="ts">
import { mdiFormatFont } from '@mdi/js'
import type { FileItem } from '~~/core/files/fileItem'
import { MOST_CUTS, MOST_OWN, ownTypefaceSchema, type OwnTypeface } from '~~/core/look/ownTypeface'
import type { SiteStyle } from '~~/core/look/siteStyle'
import { DEFAULT_TYPE, ownTypeface } from '~~/core/look/typefaces'
import type { Carried } from '~/composables/carried'

/** Typefaces of the owner's own: taken from fonts of the library or the computer, and chosen for headings or text. */
const emit = defineEmits<{ set: [changed: Partial<SiteStyle>] }>()
const looks = useLooks()
const library = useLibrary()
const uploads = useUploads()
const { problem, attempt } = useAttempt()

const FONTS = ['font/woff2', 'font/woff', 'font/ttf', 'font/otf']
const own = computed(() => looks.style.own)
/** for a new typeface, or for the other font of one that is there */
const finding = ref<'new' | OwnTypeface>()
/** what is being read, by its title */
const reading = ref('')

const BOLD = 600
const cutWords = ({ cuts }: OwnTypeface) =>
  cuts.map(({ least, most }) => (least < most ? 'all weights' : least < BOLD ? 'regular' : 'bold')).join(' and ')
/** What a typeface of one font of one weight can be given beside it. */
function missing({ cuts }: OwnTypeface): 'bold' | 'regular' | undefined {
  const [{ least, most }] = cuts as [OwnTypeface['cuts'][number]]
  return cuts.length >= MOST_CUTS || least < most ? undefined : least < BOLD ? 'bold' : 'regular'
}

const PARTS = [
  ['heading', 'Headings'],
  ['text', 'Text'],
] as const
const usedFor = ({ id }: OwnTypeface) => PARTS.filter(([part]) => looks.style.type[part] === id)

/** @param beside the typeface that it is the other font of */
async function take(file: FileItem, beside?: OwnTypeface) {
  finding.value = undefined
  reading.value = file.title
  await attempt(async () => {
    const made = await ask(ownTypefaceSchema, '/typefaces', 'POST', { file: file.id, beside })
    const others = own.value.filter(({ id }) => id !== beside?.id && id !== made.id)
    // What was set in it stays so.
    const type = { ...looks.style.type }
    for (const [part] of PARTS) if (type[part] === beside?.id) type[part] = made.id
    emit('set', { own: [...others, made], type })
  })
  reading.value = ''
}

function bring(local: File | undefined, beside?: OwnTypeface) {
  if (!local) return
  uploads.add([{ file: local, path: local.name }], { done: item => void take(item, beside) })
}
const besideIt = () => (finding.value === 'new' ? undefined : finding.value)
const fromComputer = async (beside = besideIt()) => bring((await chooseFiles({ multiple: false }))[0], beside)
const { over, target } = useDropOn(true, async ({ files, things }: Carried) => {
  if (files) return bring((await files)[0]?.file)
  const [item] = things ? await library.meet(things.files) : []
  if (item) await take(item)
})

function takeOff(typeface: OwnTypeface) {
  const type = { ...looks.style.type }
  for (const [part] of usedFor(typeface)) type[part] = DEFAULT_TYPE[part]
  emit('set', { own: own.value.filter(({ id }) => id !== typeface.id), type })
}
</script>

<template>
  <div v-drop="target" class="own" role="group" aria-label="Typefaces of your own" :class="{ over }">
    <ul v-if="own.length">
      <li v-for="typeface in own" :key="typeface.id">
        <span class="sample" :style="{ fontFamily: ownTypeface(typeface).family }" aria-hidden="true">Ag</span>
        <span class="words"
          ><b>{{ typeface.name }}</b
          ><span>{{ cutWords(typeface) }}</span></span
        >
        <span class="acts">
          <VBtn
            v-for="[part, words] in PARTS"
            :key="part"
            :aria-pressed="looks.style.type[part] === typeface.id"
            :variant="looks.style.type[part] === typeface.id ? 'tonal' : 'outlined'"
            @click="emit('set', { type: { ...looks.style.type, [part]: typeface.id } })"
            >{{ words }}</VBtn
          >
          <VBtn v-if="missing(typeface)" @click="finding = finding === typeface ? undefined : typeface"
            >Add its {{ missing(typeface) }} font…</VBtn
          >
          <VBtn :aria-label="`Take off ${typeface.name}`" @click="takeOff(typeface)">Take off</VBtn>
        </span>
      </li>
    </ul>
    <span class="acts">
      <VBtn v-if="own.length < MOST_OWN" variant="outlined" :prepend-icon="mdiFormatFont" @click="finding = finding ? undefined : 'new'">{{
        own.length ? 'Another of your own…' : 'A typeface of your own…'
      }}</VBtn>
      <span v-if="reading" class="hint" role="status">Reading “{{ reading }}”…</span>
      <span v-else-if="!own.length" class="hint">WOFF2, TTF or OTF, from the library or dropped here</span>
    </span>
    <FileFinder
      v-if="finding"
      :label="finding === 'new' ? 'Find a font' : `Find the ${missing(finding)} font of ${finding.name}`"
      :types="FONTS"
      computer
      no-bundles
      @choose="take($event, besideIt())"
      @computer="fromComputer()"
      @close="finding = undefined"
    />
    <p v-if="problem" class="hint clay" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.own {
  display: grid;
  gap: 6px;
  justify-items: start;
  margin-top: 8px;
  border-radius: 4px;
}
.own.over {
  outline: 2px dashed var(--water);
  outline-offset: 4px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  width: 100%;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
li:last-child {
  border-bottom: 1px solid var(--line);
}
.sample {
  font-size: 26px;
  line-height: 1.2;
  min-width: 40px;
}
.words {
  display: grid;
  flex: 1 1 120px;
  min-width: 0;
  overflow-wrap: anywhere;
}
.words b {
  font-weight: 500;
}
.words span {
  color: var(--soft);
  font-size: 12.5px;
}
</style>
