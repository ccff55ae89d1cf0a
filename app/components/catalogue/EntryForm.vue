<script setup lang="ts">
import { TITLE, isChoice, isFileKind, isMany, type Field } from '~~/core/catalogue/field'
import type { EntryItem, EntryPlace, EntryVersion, Value } from '~~/core/catalogue/entry'
import type { CatalogueItem } from '~~/core/catalogue/catalogue'
import { titleOf } from '~~/core/catalogue/values'
import { cellDraft, readDraft } from '~/catalogue/cells'

/** One entry with all its fields, in the margin: what is written is kept as one goes on. */
const props = defineProps<{ catalogue: CatalogueItem; entry: EntryItem; /** downloads of its files in thirty days */ taken?: number }>()
const emit = defineEmits<{ remove: [] }>()

const entries = useEntries()
const library = useLibrary()
const rights = useRights()
const pages = usePages()
const notices = useNotices()
const { problem, attempt } = useAttempt()
const drafts = reactive<Record<string, string>>({})
const faults = reactive<Record<string, string>>({})
/** the field that a file is looked for */
const finding = ref<string>()

const writes = computed(() => rights.may('write'))
const layout = computed(() => pages.all.find(({ id }) => id === props.catalogue.layout))
const address = computed(() => `/${props.catalogue.slug}/${props.entry.slug}`)
const slug = ref(props.entry.slug)
const showsVersions = ref(false)
const versions = shallowRef<EntryVersion[]>([])
watch(
  () => showsVersions.value && [props.entry.id, props.entry.waiting],
  asked => asked && attempt(async () => void (versions.value = await entries.versionsOf(props.entry.id))),
)
watch(
  () => props.entry.slug,
  now => (slug.value = now),
)

/** what stood in each field when it was shown last */
const shown = new Map<string, string>()
watch(
  () => [props.entry.id, props.entry.revision],
  () => {
    for (const field of props.catalogue.fields) {
      const [before, now] = [shown.get(field.id), cellDraft(field, props.entry.values[field.id])]
      const isWritten = before !== undefined && drafts[field.id] !== before
      // What somebody is writing stays, whatever is written elsewhere meanwhile.
      if (!isWritten) drafts[field.id] = now
      faults[field.id] =
        isWritten && now !== before && now !== drafts[field.id]
          ? `It was changed somewhere else meanwhile, to “${now}”. Yours takes its place when you go on.`
          : ''
      shown.set(field.id, isWritten ? before : now)
    }
  },
  { immediate: true },
)

async function write(field: Field, value: Value | null) {
  faults[field.id] = ''
  try {
    await entries.change([{ id: props.entry.id, values: { [field.id]: value } }])
    shown.delete(field.id)
    drafts[field.id] = cellDraft(field, entries.byId.get(props.entry.id)?.values[field.id])
    shown.set(field.id, drafts[field.id]!)
  } catch (error) {
    faults[field.id] = wordsOf(error)
  }
}

/** Fields that are written in, and hold what is not in the entry. */
const unwritten = () =>
  props.catalogue.fields.filter(
    field =>
      !isFileKind(field.kind) &&
      !isChoice(field.kind) &&
      field.kind !== 'yesNo' &&
      drafts[field.id] !== cellDraft(field, props.entry.values[field.id]),
  )
async function writeDraft(field: Field) {
  if (!unwritten().includes(field)) return
  try {
    await write(field, readDraft(field, drafts[field.id] ?? ''))
  } catch (error) {
    faults[field.id] = wordsOf(error)
  }
}
let onItsWay: Promise<unknown> = Promise.resolve()
const leaveField = (field: Field) => (onItsWay = Promise.all([onItsWay, writeDraft(field)]))
useKeepWritten(
  () => unwritten().length > 0,
  () => onItsWay,
)
onBeforeUnmount(() => {
  for (const field of unwritten())
    if (faults[field.id]) notices.say(`“${drafts[field.id]}” was not written. ${faults[field.id]}`, { tone: 'attention' })
})

const filesOf = (field: Field): string[] => {
  const value = props.entry.values[field.id]
  return value === undefined ? [] : ([value].flat() as string[])
}
function addFile(field: Field, id: string) {
  finding.value = undefined
  void write(field, isMany(field.kind) ? [...new Set([...filesOf(field), id])] : id)
}
function takeFile(field: Field, id: string) {
  const left = filesOf(field).filter(each => each !== id)
  void write(field, left.length ? left : null)
}
/** What stands for the site itself has no name to write. */
const shownFields = computed(() => props.catalogue.fields.filter(({ id }) => id !== TITLE || !props.catalogue.ofSite))
const options = (field: Field) => field.options.map(({ id, name }) => ({ value: id, title: name }))
const publish = () =>
  attempt(async () => {
    const { lacking } = await useCatalogues().publish(props.catalogue.id, [props.entry.id])
    await entries.load()
    if (lacking[0]) throw new Error(`It needs “${lacking[0].field}” before it can go live.`)
  })
/** pages on which something leads to it by itself */
const places = shallowRef<EntryPlace[]>([])
/** Whoever goes through the rows by key asks for none of them. */
useTimeoutFn(() => attempt(async () => void (places.value = await entries.placesOf(props.entry.id))), 300)
const timetable = useTimetable()
const planned = computed(() => timetable.forEntry(props.entry.id))
/** what a time is asked for */
const setting = ref<'live' | 'off'>()
const later = (at: string) => timetable.set({ kind: 'entry', entry: props.entry.id, to: setting.value! }, at)
const moveTo = () => slug.value !== props.entry.slug && attempt(() => entries.moveTo(props.entry.id, slug.value))
</script>

<template>
  <section class="particulars" :aria-label="`One ${catalogue.one}`">
    <h2 v-if="!catalogue.ofSite">{{ titleOf(entry.values) }}</h2>
    <p class="state">
      <span v-if="!entry.live">Visitors do not see it yet.</span>
      <span v-else-if="entry.waiting">Visitors see it as it was before.</span>
      <span v-else>Live as it stands.</span>
      <VBtn v-if="entry.waiting && rights.may('publish')" variant="outlined" @click="publish">Put it live</VBtn>
      <a v-if="entry.live && layout?.published" :href="address" target="_blank">View live</a>
    </p>
    <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
    <TimeLine
      v-for="item in planned"
      :key="item.id"
      :item="item"
      :words="item.act.kind === 'entry' && item.act.to === 'live' ? 'Goes live' : 'Leaves the site'"
    />
    <SetTime
      v-if="setting"
      :label="setting === 'live' ? 'Put it live by itself' : 'Take it from visitors by itself'"
      :act="later"
      @done="setting = undefined"
      @close="setting = undefined"
    />
    <p v-else-if="rights.may('publish')" class="times">
      <VBtn v-if="entry.waiting" color="soft" @click="setting = 'live'">Live at a set time…</VBtn>
      <VBtn v-if="!catalogue.ofSite" color="soft" @click="setting = 'off'">Leave at a set time…</VBtn>
    </p>
    <p v-if="places.length" class="hint">
      Led to from
      <template v-for="(place, at) in places" :key="place.id"
        >{{ at ? ', ' : '' }}<NuxtLink :to="`/desk/pages/${place.id}`">{{ place.title }}</NuxtLink></template
      >.
    </p>
    <p v-if="taken" class="hint">{{ counted(taken, 'download') }} of its files in thirty days.</p>
    <template v-for="field in shownFields" :key="field.id">
      <div v-if="isFileKind(field.kind)" class="files" :data-field="field.id">
        <p class="label">{{ field.name }}</p>
        <ul v-if="filesOf(field).length">
          <li v-for="id in filesOf(field)" :key="id">
            <NuxtLink :to="`/desk/files/${id}`">{{ library.known.get(id)?.title ?? 'A file' }}</NuxtLink>
            <VBtn
              v-if="writes"
              color="soft"
              :aria-label="`Take off ${library.known.get(id)?.title ?? 'this file'}`"
              @click="takeFile(field, id)"
              >Take off</VBtn
            >
          </li>
        </ul>
        <p v-else class="hint">{{ field.hint || 'None yet. Drop one on its cell in the table.' }}</p>
        <VBtn v-if="writes" @click="finding = field.id">{{
          filesOf(field).length && !isMany(field.kind) ? 'Another file…' : 'Find a file…'
        }}</VBtn>
        <FileFinder
          v-if="finding === field.id"
          :label="`Find the file for ${field.name}`"
          :types="field.kind === 'picture' || field.kind === 'pictures' ? ['picture'] : undefined"
          @choose="addFile(field, $event.id)"
          @close="finding = undefined"
        />
        <p v-if="faults[field.id]" class="fault" role="alert">{{ faults[field.id] }}</p>
      </div>
      <VAutocomplete
        v-else-if="isChoice(field.kind)"
        :data-field="field.id"
        :label="field.name"
        :items="options(field)"
        :multiple="isMany(field.kind)"
        :chips="isMany(field.kind)"
        :model-value="entry.values[field.id] ?? (isMany(field.kind) ? [] : null)"
        :readonly="!writes"
        clearable
        :hint="field.hint"
        :error-messages="faults[field.id]"
        @update:model-value="write(field, $event)"
      />
      <VCheckbox
        v-else-if="field.kind === 'yesNo'"
        :data-field="field.id"
        :label="field.name"
        :model-value="entry.values[field.id] === true"
        :readonly="!writes"
        :hint="field.hint"
        :error-messages="faults[field.id]"
        @update:model-value="write(field, $event === true)"
      />
      <VTextarea
        v-else-if="field.kind === 'longText'"
        v-model="drafts[field.id]"
        :data-field="field.id"
        :label="field.name"
        rows="4"
        auto-grow
        max-rows="14"
        maxlength="20000"
        :readonly="!writes"
        :hint="field.hint || 'A line between paragraphs; - before a point of a list; **bold**.'"
        :error-messages="faults[field.id]"
        @blur="leaveField(field)"
      />
      <VTextField
        v-else
        v-model="drafts[field.id]"
        :data-field="field.id"
        :label="field.name"
        :suffix="field.kind === 'money' ? field.currency : field.unit"
        :maxlength="field.id === TITLE ? 200 : 500"
        :readonly="!writes"
        :hint="field.hint"
        :error-messages="faults[field.id]"
        @blur="leaveField(field)"
        @keydown.enter="leaveField(field)"
      />
    </template>
    <FoldSection v-if="entry.live || versions.length" v-model:open="showsVersions" heading="What was live before">
      <p v-if="showsVersions && !versions.length" class="hint">Nothing yet.</p>
      <div v-for="version in versions" :key="version.number" class="version">
        <span>{{ longDate(version.published) }}{{ version.by && `, by ${version.by}` }}</span>
        <VBtn
          v-if="writes"
          color="soft"
          :aria-label="`Write it as it was on ${longDate(version.published)}`"
          @click="attempt(() => entries.writeAgain(entry.id, version))"
          >Write it so again</VBtn
        >
      </div>
    </FoldSection>
    <FoldSection v-if="!catalogue.ofSite" heading="Address, and out of the catalogue">
      <VTextField
        v-model="slug"
        label="Address"
        :prefix="`/${catalogue.slug}/`"
        maxlength="80"
        :readonly="!writes || !rights.may('publish')"
        hint="The one it had leads here from then on."
        @blur="moveTo"
        @keydown.enter="moveTo"
      />
      <VBtn v-if="writes && rights.may('publish')" color="clay" @click="emit('remove')">Put it in the bin</VBtn>
    </FoldSection>
  </section>
</template>

<style scoped>
.state {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  color: var(--soft);
}
.times {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.files {
  position: relative;
  display: grid;
  gap: 3px;
  justify-items: start;
}
.version {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  border-bottom: 1px solid #e3e9e7;
}
.label {
  font-size: 12.5px;
  color: var(--soft);
}
.files ul {
  list-style: none;
  margin: 0;
  padding: 0;
  width: 100%;
}
.files li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  overflow-wrap: anywhere;
}
</style>
