<script setup lang="ts">
import { LOOK_NAMES, LOOK_WORDS } from '~~/core/look/builtin'
import { opensInBrowser } from '~~/core/files/mediaType'
import { formatSize } from '~~/core/files/size'
import type { ButtonAttrs } from '~~/core/page/schema'
import { PLACEHOLDER_NAMES, effectiveAction, fillPlaceholders, targetFacts } from '~~/core/page/placeholders'
import type { FileItem } from '~~/core/files/item'
import { ACTION_CHOICES, ALIGN_CHOICES } from '~/editor/words'

/** The settings of the selected button or link, in the margin. */
const props = defineProps<{
  kind: 'button' | 'link'
  /** it stands in a row, which places it */
  inRow?: boolean
  attrs: Partial<ButtonAttrs> & Pick<ButtonAttrs, 'placement' | 'target' | 'action' | 'saveAs'>
}>()
const emit = defineEmits<{
  change: [attrs: Partial<ButtonAttrs>]
  computer: []
  duplicate: []
  move: [direction: -1 | 1]
  remove: []
  leave: []
}>()

const library = useLibrary()
const page = usePage()
const finding = ref(false)
const root = ref<HTMLElement>()
const more = useLocalStorage('trough-note-more', true)

const file = computed(() => props.attrs.target ? library.known.get(props.attrs.target.id) : undefined)
const there = computed(() => file.value && !file.value.deleted ? file.value : undefined)
const onlySaves = computed(() => !!there.value && !opensInBrowser(there.value.mediaType))
const action = computed(() => effectiveAction(props.attrs.action, there.value))
const count = computed(() => page.downloads[props.attrs.placement] ?? 0)


function choose(chosen: FileItem) {
  finding.value = false
  emit('change', { target: { kind: 'file', id: chosen.id } })
}

const valueOf = (event: Event) => (event.target as HTMLInputElement).value

function insertPlaceholder(name: string) {
  const note = props.attrs.note?.trim()
  emit('change', { note: `${note ? `${note}, ` : ''}{${name}}` })
}

defineExpose({ focus: () => root.value?.querySelector<HTMLElement>('input, button')?.focus() })
</script>

<template>
  <section ref="root" class="note" :aria-label="kind === 'button' ? 'Settings of this button' : 'Settings of this link'" @keydown.esc.stop="finding ? finding = false : emit('leave')">
    <div class="target" :class="{ missing: !there }">
      <template v-if="file && there">
        <FilePicture :file="file" class="picture" />
        <div class="words">
          <NuxtLink :to="`/desk/files/${file.id}`" class="title" :title="file.fileName">{{ file.title }}</NuxtLink>
          <span class="facts"><TypeTag :tag="file.tag" :family="file.family" /> {{ formatSize(file.size) }}<template v-if="file.facts.pages">, {{ counted(file.facts.pages, 'page') }}</template></span>
          <span class="facts">added {{ shortDate(file.changed) }}</span>
        </div>
      </template>
      <p v-else class="empty">{{ file ? `“${file.title}” is in the bin.` : 'Leads nowhere yet.' }}</p>
      <button type="button" class="plain" @click="finding = !finding">{{ there ? 'Other file…' : 'Choose a file…' }}</button>
      <FileFinder v-if="finding" class="pop" label="Find the file this leads to" computer @choose="choose" @computer="finding = false; emit('computer')" @close="finding = false" />
    </div>

    <label v-if="kind === 'button'" class="field">
      <span>Label</span>
      <input type="text" maxlength="200" :value="attrs.label" :placeholder="there?.title ?? 'Download'" @input="emit('change', { label: valueOf($event) })">
    </label>

    <fieldset class="field">
      <legend>A click</legend>
      <div class="choices">
        <label v-for="[name, words] in ACTION_CHOICES" :key="name" :class="{ off: onlySaves && name !== 'save' }">
          <input type="radio" :name="`action-${attrs.placement}`" :checked="action === name" :disabled="onlySaves && name !== 'save'" @change="emit('change', { action: name })"><span>{{ words }}</span>
        </label>
      </div>
      <p v-if="onlySaves" class="hint">Browsers cannot show {{ there!.tag }} files safely, so this one is always saved.</p>
    </fieldset>
    <label v-if="action === 'save'" class="field">
      <span>Saved as</span>
      <input type="text" maxlength="200" :value="attrs.saveAs" :placeholder="there?.fileName ?? 'the file’s own name'" @input="emit('change', { saveAs: valueOf($event) })">
    </label>

    <details v-if="kind === 'button'" :open="more" @toggle="more = ($event.target as HTMLDetailsElement).open">
      <summary>Second line, look and place</summary>
      <label class="field">
        <span>Second line</span>
        <input type="text" maxlength="200" :value="attrs.note" placeholder="none" @input="emit('change', { note: valueOf($event) })">
      </label>
      <p class="hint fill">
        <template v-if="attrs.note">Reads “{{ fillPlaceholders(attrs.note, there && targetFacts(there)) }}”. </template>Add
        <button v-for="name in PLACEHOLDER_NAMES" :key="name" type="button" class="chip" :aria-label="`Add the ${name}`" @click="insertPlaceholder(name)">{{ name }}</button>
      </p>
      <fieldset class="field">
        <legend>Look</legend>
        <div class="choices looks">
          <label v-for="name in LOOK_NAMES" :key="name" :title="LOOK_WORDS[name].hint">
            <input type="radio" :name="`look-${attrs.placement}`" :checked="attrs.look === name" @change="emit('change', { look: name })"><span>{{ LOOK_WORDS[name].title }}</span>
          </label>
        </div>
        <p class="hint">{{ LOOK_WORDS[attrs.look!].hint }}.</p>
      </fieldset>
      <ChoiceField v-if="attrs.look !== 'strap' && !inRow" legend="Place" :choices="ALIGN_CHOICES" :value="attrs.align" @choose="emit('change', { align: $event })" />
    </details>

    <p class="tally">{{ count ? `${counted(count, 'download')} from here` : 'No downloads from here yet' }}</p>
    <div class="acts">
      <template v-if="kind === 'button'">
        <button type="button" class="plain" @click="emit('duplicate')">Duplicate</button>
        <button type="button" class="plain" aria-label="Move up" @click="emit('move', -1)">Up</button>
        <button type="button" class="plain" aria-label="Move down" @click="emit('move', 1)">Down</button>
      </template>
      <button type="button" class="plain" @click="emit('remove')">{{ kind === 'button' ? 'Remove' : 'Remove link' }}</button>
    </div>
  </section>
</template>

<style scoped>
.note { padding: 12px; background: #F5F8F7; border: 1px solid var(--line); border-left: 3px solid var(--water); border-radius: 0 4px 4px 0; display: grid; gap: 10px; }
.target { position: relative; display: grid; grid-template-columns: 56px minmax(0, 1fr); gap: 8px 10px; align-items: start; }
.target > .plain { grid-column: 1 / -1; justify-self: start; }
.target.missing .empty { grid-column: 1 / -1; color: #9A4420; font-weight: 600; }
.picture { width: 56px; height: 72px; }
.words { display: grid; gap: 3px; }
.title { font-weight: 600; color: var(--ink); overflow-wrap: anywhere; line-height: 1.3; }
.facts { font-size: 12.5px; color: var(--soft); }
.pop { position: absolute; top: 100%; right: 0; z-index: 20; margin-top: 4px; }
details { border-top: 1px solid var(--line); padding-top: 8px; display: grid; gap: 10px; }
details[open] > * + * { margin-top: 9px; }
summary { cursor: pointer; font-weight: 600; }
.fill { margin-top: 4px; }
.chip { padding: 0 5px; margin: 0 1px; border: 1px solid var(--line); border-radius: 3px; background: #fff; font: 12px/20px 'IBM Plex Mono', monospace; }
.tally { color: var(--soft); font-size: 12.5px; }
.acts { display: flex; flex-wrap: wrap; gap: 4px; border-top: 1px solid var(--line); padding-top: 8px; }
</style>
