<script setup lang="ts">
import type { Led } from '~~/core/page/led'
import type { FileItem, FoundFile } from '~~/core/files/fileItem'
import { formatSize } from '~~/core/files/size'
import { fold } from '~~/core/find/fold'
import { isPlainlyAddress } from '~~/core/page/recognise'
import type { Target } from '~~/core/page/schema'
import type { Addable } from '~/editor/add'
import { TARGET_ICONS } from '~/editor/targetIcons'

/**
 * Finds a file by part of its name, or takes one from the computer; where it is asked to, also a page, an address, an e-mail address or a
 * phone number.
 */
const props = defineProps<{
  label: string
  /** offers a file of the computer, too */
  computer?: boolean
  /** files that are not to be offered */
  except?: string[]
  /** only files of these media types or families */
  types?: readonly string[]
  /** bundles are not offered */
  noBundles?: boolean
  /** pages and addresses are offered, too */
  anywhere?: boolean
  /** what else can be put on a page, by what is typed */
  parts?: (text: string) => Addable[]
}>()
const emit = defineEmits<{
  choose: [file: FileItem]
  lead: [target: Target, title: string]
  computer: []
  part: [part: Addable]
  close: []
}>()

const text = ref('')
const found = ref<FoundFile[]>([])
const active = ref(0)
const field = ref<HTMLInputElement>()
const list = useId()

type Option =
  { kind: 'file'; file: FoundFile } | { kind: 'led'; led: Led; side: string } | { kind: 'part'; part: Addable } | { kind: 'computer' }
/** Files by their names first; then what else the words name, before files that only have them inside. */
const options = computed<Option[]>(() => {
  const files = (inside: boolean) =>
    found.value.filter(file => (file.match?.by === 'inside') === inside).map((file): Option => ({ kind: 'file', file }))
  const all = props.parts?.(text.value) ?? []
  const parts = all.filter(({ here }) => !here).map((part): Option => ({ kind: 'part', part }))
  const here = all.filter(part => part.here).map((part): Option => ({ kind: 'part', part }))
  const computer: Option[] = props.computer ? [{ kind: 'computer' }] : []
  const [sure, unsure] = isPlainlyAddress(text.value) ? [addressed.value, []] : [[], addressed.value]
  return text.value.trim()
    ? [
        ...here,
        ...sure,
        ...foundSignposts.value,
        ...files(false),
        ...foundPages.value,
        ...foundEntries.value,
        ...unsure,
        ...parts,
        ...files(true),
        ...computer,
      ]
    : [...here, ...files(false), ...computer, ...parts]
})

const MOST_PAGES = 4
const pages = usePages()
const foundPages = computed<Option[]>(() => {
  const q = fold(text.value.trim())
  if (!props.anywhere || !q) return []
  return pages.items
    .filter(({ title, slug }) => fold(title).includes(q) || slug.includes(q))
    .slice(0, MOST_PAGES)
    .map(({ id, title, slug }): Option => ({ kind: 'led', led: { target: { kind: 'page', id }, title }, side: `/${slug}` }))
})
const foundEntries = shallowRef<Option[]>([])
async function findEntries(q: string) {
  const items =
    props.anywhere && q && useCatalogues().items.length
      ? await useSamples()
          .find(q)
          .catch(() => [])
      : []
  // What was asked before may be answered later.
  if (text.value.trim() === q)
    foundEntries.value = items
      .slice(0, MOST_PAGES)
      .map(({ id, title, slug }): Option => ({ kind: 'led', led: { target: { kind: 'entry', id }, title }, side: `/${slug}` }))
}
const signposts = useSignposts()
/** Signposts come first: who names one wants what is current. */
const foundSignposts = computed<Option[]>(() => {
  const q = fold(text.value.trim())
  if (!props.anywhere || !q) return []
  return signposts.items
    .filter(({ title, name }) => fold(title).includes(q) || name.includes(q))
    .slice(0, MOST_PAGES)
    .map(({ id, title, name }): Option => ({ kind: 'led', led: { target: { kind: 'signpost', id }, title }, side: `/to/${name}` }))
})
/** What the text itself is an address of. */
const addressed = shallowRef<Option[]>([])
async function readAddress(q: string) {
  const led = props.anywhere ? await ledBy(q) : undefined
  if (text.value === q) addressed.value = led ? [{ kind: 'led', led, side: TARGET_WORDS[led.target.kind] }] : []
}

const { search, settled } = useFileSearch(8, { types: () => props.types, offers: true })
const { press, held } = usePressing()
let reading = Promise.resolve()
watch(
  text,
  async q => {
    addressed.value = []
    reading = readAddress(q)
    void findEntries(q.trim())
    const answer = await search(q)
    const pressed = held()
    if (pressed) await pressed
    if (!answer || text.value !== q) return
    found.value = answer.items.filter(file => !props.except?.includes(file.id) && !(props.noBundles && file.bundle))
    active.value = 0
  },
  { immediate: true },
)

onMounted(() => field.value?.focus())

function take(index: number) {
  const option = options.value[index]
  if (option?.kind === 'file') emit('choose', option.file)
  else if (option?.kind === 'led') emit('lead', option.led.target, option.led.title)
  else if (option?.kind === 'part') emit('part', option.part)
  else if (option) emit('computer')
}

function onKey(event: KeyboardEvent) {
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (step) active.value = (active.value + step + options.value.length) % Math.max(1, options.value.length)
  // Fast typists press Enter before the answer is there.
  else if (event.key === 'Enter') void Promise.all([settled(), reading]).then(() => take(active.value))
  else if (event.key === 'Escape') emit('close')
  else return
  event.preventDefault()
  event.stopPropagation()
}
watch(active, async () => {
  await nextTick()
  document.getElementById(`${list}-${active.value}`)?.scrollIntoView({ block: 'nearest' })
})
</script>

<template>
  <div class="finder" role="dialog" :aria-label="label" @keydown="onKey">
    <VTextField
      ref="field"
      v-model="text"
      v-field-role="'combobox'"
      aria-expanded="true"
      aria-autocomplete="list"
      :aria-controls="list"
      :aria-activedescendant="options.length ? `${list}-${active}` : undefined"
      :aria-label="label"
      :placeholder="anywhere ? 'A name, words inside, an address' : 'A name, or words inside'"
      autocomplete="off"
      spellcheck="false"
    />
    <ul :id="list" role="listbox" :aria-label="label" @pointerdown="press">
      <li
        v-for="(option, index) in options"
        :id="`${list}-${index}`"
        :key="
          option.kind === 'file'
            ? option.file.id
            : option.kind === 'part'
              ? option.part.name
              : option.kind === 'led'
                ? JSON.stringify(option.led.target)
                : 'computer'
        "
        role="option"
        :class="option.kind"
        :aria-selected="index === active"
        @mousemove="active = index"
        @mousedown.prevent
        @click="take(index)"
      >
        <template v-if="option.kind === 'file'">
          <TypeTag :tag="option.file.tag" :family="option.file.family" /><span class="words"
            ><span class="title">{{ option.file.title }}</span
            ><PassageLine
              v-if="option.file.match?.by === 'inside'"
              :part="option.file.match.part"
              :passage="option.file.match.passage" /></span
          ><span class="size">{{ formatSize(option.file.size) }}</span>
        </template>
        <template v-else-if="option.kind === 'led'">
          <span class="sign"><VIcon :icon="TARGET_ICONS[option.led.target.kind]" size="18" /></span
          ><span class="words"
            ><span class="title">{{ option.led.title }}</span></span
          ><span class="part-hint">{{ option.side }}</span>
        </template>
        <template v-else-if="option.kind === 'part'">
          <span class="sign"><VIcon :icon="option.part.icon" size="18" /></span
          ><span class="words"
            ><span class="title">{{ option.part.words }}</span></span
          ><span class="part-hint">{{ option.part.hint }}</span>
        </template>
        <template v-else>From this computer…</template>
      </li>
      <li v-if="!options.length" class="none" role="option" aria-disabled="true" :aria-selected="false">
        {{ parts ? 'No file and no part of a page is called that.' : 'No file has that in its name or inside.' }}
      </li>
    </ul>
  </div>
</template>

<style scoped>
.finder {
  width: 340px;
  max-width: calc(100vw - 24px);
  background: #fff;
  border: 1px solid var(--ink);
  border-radius: 4px;
}
.v-input :deep(.v-field) {
  box-shadow: inset 0 -1px var(--line);
}
.v-input :deep(.v-field--focused) {
  box-shadow: inset 0 -2px var(--water);
}
ul {
  list-style: none;
  margin: 0;
  padding: 4px;
  max-height: 300px;
  overflow: auto;
}
li {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 30px;
  padding: 0 6px;
  border-radius: 3px;
  cursor: pointer;
}
li[aria-selected='true'] {
  background: #ddebe9;
  box-shadow: inset 3px 0 var(--water);
}
.words {
  flex: 1;
  display: grid;
  min-width: 0;
}
.title {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.size {
  font:
    12px 'IBM Plex Mono',
    monospace;
  color: var(--soft);
}
.computer {
  border-top: 1px solid var(--line);
  border-radius: 0;
  margin-top: 3px;
}
.computer + .part,
.file + .part {
  border-top: 1px solid var(--line);
  border-radius: 0;
}
.sign {
  width: 40px;
  text-align: center;
  color: var(--soft);
  flex: none;
}
.part-hint {
  color: var(--soft);
  font-size: 12px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.none {
  color: var(--soft);
  cursor: default;
}
</style>
