<script setup lang="ts">
import type { Tone } from '~~/core/look/palette'
import { appearanceOf } from '~~/core/look/styles'
import { buttonParts } from '~~/core/page/button'
import { effectiveAction } from '~~/core/page/destination'
import { dateInName } from '~~/core/files/nameAdvice'
import { formatSize } from '~~/core/files/size'
import { fittingLabel, type Spoken } from '~~/core/page/fittingLabel'
import type { Action, ButtonAttrs, CardAttrs, Target } from '~~/core/page/schema'
import { PLACEHOLDER_NAMES, fillPlaceholders, strayPlaceholders } from '~~/core/page/placeholders'
import type { FileItem } from '~~/core/files/fileItem'
import { TARGET_ICONS } from '~/editor/targetIcons'
import { ACTION_CHOICES, ALIGN_CHOICES } from '~/editor/words'

/** The settings of the selected button or link, in the margin. */
const props = defineProps<{
  kind: 'button' | 'link' | 'card'
  /** it stands in a row, which places it */
  inRow?: boolean
  /** the background it stands on */
  tone: Tone
  /** the catalogue whose entries are laid out here */
  catalogue?: string | null
  attrs: Partial<CardAttrs> & Pick<ButtonAttrs, 'placement' | 'target' | 'action' | 'saveAs'>
}>()
const emit = defineEmits<{
  change: [attrs: Partial<CardAttrs>]
  computer: []
  duplicate: []
  again: [target: Target, title: string]
  againFromComputer: []
  move: [direction: -1 | 1]
  remove: []
  leave: []
}>()

const page = usePage()
const { speech } = storeToRefs(useSpeech())
/** all places that lead there are led elsewhere */
const replacing = ref(false)
const finding = ref(false)
const root = ref<HTMLElement>()
const more = useLocalStorage('trough-note-more', true)
const lookShown = useLocalStorage('trough-note-look', true)
const looks = useLooks()

const uploads = useUploads()
const { filling } = useSample(() => props.catalogue)
const { file, signpost, destination, fault: trouble } = useDestination(() => props.attrs.target, filling)
/** its file is still on its way */
const arriving = computed(() => !!uploads.forPlacement(props.attrs.placement))
const fault = computed(() => (arriving.value ? undefined : trouble.value))
const there = computed(() => destination.value?.file && file.value)
const can = (action: Action) => !destination.value || destination.value.actions.includes(action)
const action = computed(() => effectiveAction(props.attrs.action, destination.value))
/** facts of the file; null where there is no file to say anything of */
const facts = computed(() => destination.value && (destination.value.file ?? null))
const address = computed(() =>
  destination.value && !destination.value.file ? destination.value.href(action.value, props.attrs.placement) : '',
)
const count = computed(() => page.downloads[props.attrs.placement] ?? 0)
/** Links have no look, but are asked the same. */
const appearance = computed(() =>
  appearanceOf({ look: props.attrs.look ?? '', own: props.attrs.own }, id => looks.byId.get(id)?.appearance),
)
const stray = computed(() => (props.kind === 'link' ? [] : strayPlaceholders(`${props.attrs.label} ${props.attrs.note}`)))
const parts = computed(() => buttonParts(props.attrs as ButtonAttrs, destination.value, speech.value))

/** What the label may say of that to which it leads, and of what it led to while this button was open. */
const spoken = computed<Spoken | undefined>(() => {
  if (!destination.value) return undefined
  return { title: destination.value.title, dated: there.value ? dateInName(there.value.fileName) : undefined }
})
const before = shallowRef<Spoken>()
watch([() => props.attrs.placement, spoken], ([placement, now], [other, old]) => {
  if (placement !== other) before.value = undefined
  else if (old && now && (old.title !== now.title || old.dated !== now.dated)) before.value = old
})
/** a label that shall stay although another would fit */
const kept = ref('')
const fitting = computed(() => {
  const { label } = props.attrs
  return label && spoken.value && kept.value !== label ? fittingLabel(label, spoken.value, before.value) : undefined
})

function lead(target: Target) {
  finding.value = false
  emit('change', { target })
}
/** what the same button leads to is looked for */
const next = ref(false)
function placeNext(target: Target, title: string) {
  next.value = false
  emit('again', target, title)
}
const choose = (chosen: FileItem) => lead({ kind: 'file', id: chosen.id })

const givenBy = (name: string) => fillPlaceholders(`{${name}}`, facts.value, speech.value)

function insertPlaceholder(name: string) {
  const note = props.attrs.note?.trim()
  emit('change', { note: `${note ? `${note}, ` : ''}{${name}}` })
}

defineExpose({ focus: () => root.value?.querySelector<HTMLElement>('input, button')?.focus() })
</script>

<template>
  <section
    ref="root"
    class="note"
    :aria-label="`Settings of this ${kind}`"
    @keydown.esc.stop="finding || next ? (finding = next = false) : emit('leave')"
  >
    <div class="target" :class="{ missing: fault }">
      <template v-if="file && there">
        <FilePicture :file="file" class="picture" />
        <div class="words">
          <NuxtLink :to="`/desk/files/${file.id}`" class="title" :title="file.fileName">{{ file.title }}</NuxtLink>
          <span class="facts"
            ><TypeTag :tag="file.tag" :family="file.family" /> {{ formatSize(file.size)
            }}<template v-if="file.facts.pages">, {{ counted(file.facts.pages, 'page') }}</template></span
          >
          <span class="facts">added {{ shortDate(file.changed) }}</span>
          <NuxtLink v-if="signpost" :to="signpostPlace(signpost.id)" class="by"
            ><VIcon :icon="TARGET_ICONS.signpost" size="16" /> by the signpost “{{ signpost.title }}”</NuxtLink
          >
        </div>
      </template>
      <div v-else-if="destination && attrs.target" class="words elsewhere">
        <span class="title"><VIcon :icon="TARGET_ICONS[attrs.target.kind]" size="18" /> {{ destination.title }}</span>
        <span class="facts">{{ TARGET_WORDS[attrs.target.kind] }}</span>
        <code v-if="attrs.target.kind === 'address' || attrs.target.kind === 'page'">{{ address }}</code>
      </div>
      <p v-if="fault" class="empty">{{ fault }}</p>
      <p v-else-if="arriving" class="facts">Its file is coming in.</p>
      <FieldTarget :catalogue="catalogue" :target="attrs.target" without @lead="lead" />
      <div class="ways">
        <VBtn
          @click="
            () => {
              finding = !finding
              next = false
            }
          "
        >
          {{ attrs.target ? 'Lead elsewhere…' : 'Choose where it leads…' }}
        </VBtn>
        <VBtn
          v-if="kind !== 'link' && attrs.target"
          :title="`The same ${kind} for the next file`"
          @click="
            () => {
              next = !next
              finding = false
            }
          "
        >
          Same again…
        </VBtn>
        <VBtn
          v-if="attrs.target && destination"
          title="Something else for all buttons and links of the site that lead there"
          @click="replacing = true"
        >
          Replace everywhere…
        </VBtn>
      </div>
      <ReplaceDialog
        v-if="replacing && attrs.target && destination"
        :from="{ target: attrs.target, title: destination.title }"
        @close="replacing = false"
      />
      <FileFinder
        v-if="next"
        class="pop"
        :label="`Find what the next ${kind} leads to`"
        computer
        anywhere
        @choose="placeNext({ kind: 'file', id: $event.id }, $event.title)"
        @lead="placeNext"
        @computer="
          () => {
            next = false
            emit('againFromComputer')
          }
        "
        @close="next = false"
      />
      <FileFinder
        v-if="finding"
        class="pop"
        label="Find what this leads to"
        computer
        anywhere
        @choose="choose"
        @lead="lead"
        @computer="
          () => {
            finding = false
            emit('computer')
          }
        "
        @close="finding = false"
      />
    </div>

    <div class="rest">
      <template v-if="kind === 'card'">
        <VTextField
          label="Title"
          maxlength="200"
          :model-value="attrs.title"
          :placeholder="destination?.title ?? ''"
          @update:model-value="emit('change', { title: $event })"
        />
        <VTextarea
          label="What it is"
          rows="3"
          maxlength="1000"
          :model-value="attrs.text"
          :placeholder="there?.description || 'In a sentence or two'"
          @update:model-value="emit('change', { text: $event })"
        />
        <VCheckbox
          label="With its picture"
          :model-value="attrs.pictured"
          @update:model-value="emit('change', { pictured: !attrs.pictured })"
        />
      </template>
      <VTextField
        v-if="kind !== 'link'"
        :label="`${kind === 'card' ? 'Label of the button' : 'Label'}`"
        maxlength="200"
        :model-value="attrs.label"
        :placeholder="destination?.title ?? 'Download'"
        @update:model-value="emit('change', { label: $event })"
      />
      <div v-if="fitting" class="fitting" role="status">
        <p>
          It leads to <code v-if="spoken!.dated">{{ there!.fileName }}</code><template v-else>“{{ spoken!.title }}”</template> now.
        </p>
        <div class="acts">
          <VBtn variant="outlined" @click="emit('change', { label: fitting })">Say “{{ fitting }}”</VBtn>
          <VBtn color="soft" @click="kept = attrs.label!">Leave the label</VBtn>
        </div>
      </div>

      <ChoiceField legend="A click" :choices="ACTION_CHOICES" :value="action" :can="can" @choose="emit('change', { action: $event })" />
      <p v-if="action === 'see'" class="hint">Shows what is in it on a page of its own; visitors take it from there.</p>
      <p v-else-if="there && !can('tab')" class="hint">Browsers cannot show {{ there.tag }} files safely, so this one is always saved.</p>
      <VTextField
        v-if="action === 'save'"
        label="Saved as"
        maxlength="200"
        :model-value="attrs.saveAs"
        :placeholder="there?.fileName ?? 'the file’s own name'"
        @update:model-value="emit('change', { saveAs: $event })"
      />

      <FoldSection v-if="kind !== 'link'" v-model:open="more" heading="Second line and place">
        <VTextField
          label="Second line"
          maxlength="200"
          :model-value="attrs.note"
          placeholder="none"
          @update:model-value="emit('change', { note: $event })"
        />
        <p v-if="facts !== null" class="hint fill">
          <template v-if="attrs.note">Reads “{{ fillPlaceholders(attrs.note, facts, speech) }}”. </template>Add
          <VBtn v-for="name in PLACEHOLDER_NAMES" :key="name" color="ink" class="chip" @click="insertPlaceholder(name)">
            <span class="tr-spoken">Add </span>{{ name }}<i v-if="facts">{{ givenBy(name) || 'nothing' }}</i>
          </VBtn>
        </p>
        <p v-if="stray.length" class="hint clay" role="status">There is no {{ stray.join(' and no ') }}: visitors read it as it stands.</p>
        <ChoiceField
          v-if="kind === 'button' && appearance.width !== 'fill' && !inRow"
          legend="Place"
          :choices="ALIGN_CHOICES"
          :value="attrs.align"
          @choose="emit('change', { align: $event })"
        />
      </FoldSection>

      <FoldSection v-if="kind !== 'link'" v-model:open="lookShown" heading="Look">
        <LookFields :attrs="attrs as ButtonAttrs" :label="parts.label" :note="parts.note" :tone="tone" @change="emit('change', $event)" />
      </FoldSection>

      <p class="tally" title="Of visitors: what you try while you are signed in is not counted">
        <DownloadsLink
          dimension="placement"
          :of="attrs.placement"
          :count="count"
          :words="count ? `${counted(count, 'download')} from here` : 'No downloads from here yet'"
        />
      </p>
      <BlockActs v-if="kind !== 'link'" @duplicate="emit('duplicate')" @move="emit('move', $event)" @remove="emit('remove')" />
      <VBtn v-else @click="emit('remove')">Remove link</VBtn>
    </div>
  </section>
</template>

<style scoped>
.fitting {
  padding: 2px 0 2px 9px;
  border-left: 4px solid var(--straw);
}
.fitting p {
  overflow-wrap: anywhere;
}
.fitting .v-btn {
  max-width: 100%;
  white-space: normal;
  text-align: left;
}
.note {
  position: relative;
  grid-template-rows: auto minmax(0, 1fr);
  max-height: calc(100dvh - 205px);
}
/* The file stays in sight, and so does the button itself, however many settings are unfolded. */
.rest {
  display: grid;
  gap: 10px;
  overflow: auto;
  margin: 0 -12px -12px;
  padding: 0 12px 12px;
  align-content: start;
}
.target {
  position: relative;
  display: grid;
  grid-template-columns: 56px minmax(0, 1fr);
  gap: 8px 10px;
  align-items: start;
}
.ways {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin-left: -8px;
}
.target.missing .empty {
  grid-column: 1 / -1;
  color: #9a4420;
  font-weight: 600;
}
.picture {
  width: 56px;
  height: 72px;
}
.elsewhere {
  grid-column: 1 / -1;
}
.elsewhere code {
  font-size: 12px;
  color: var(--soft);
  overflow-wrap: anywhere;
}
.words {
  display: grid;
  gap: 3px;
}
.title {
  font-weight: 600;
  color: var(--ink);
  overflow-wrap: anywhere;
  line-height: 1.3;
}
.facts {
  font-size: 12.5px;
  color: var(--soft);
}
.pop {
  position: absolute;
  top: 100%;
  right: 0;
  z-index: 20;
  margin-top: 4px;
}
details {
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
details[open] > * + * {
  margin-top: 9px;
}
summary {
  cursor: pointer;
  font-weight: 600;
}
.fill {
  margin-top: 4px;
}
.chip {
  min-height: 22px;
  padding: 0 5px;
  margin: 0 1px;
  border: 1px solid var(--line);
  border-radius: 3px;
  background: #fff;
  font:
    12px/20px 'IBM Plex Mono',
    monospace;
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  vertical-align: bottom;
}
.chip i {
  margin-left: 1px;
  color: var(--soft);
  font:
    12px 'Hanken Grotesk Variable',
    sans-serif;
}
.tally {
  color: var(--soft);
  font-size: 12.5px;
}
</style>
