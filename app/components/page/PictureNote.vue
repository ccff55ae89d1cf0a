<script setup lang="ts">
import type { FileItem } from '~~/core/files/fileItem'
import { effectiveAction } from '~~/core/page/destination'
import { firstAction } from '~~/core/page/insert'
import type { PictureAttrs, Target } from '~~/core/page/schema'
import { ACTION_CHOICES, ALIGN_CHOICES, PICTURE_CHOICES } from '~/editor/words'

/** The settings of the selected picture, in the margin. */
const props = defineProps<{ attrs: PictureAttrs }>()
const emit = defineEmits<{ change: [attrs: Partial<PictureAttrs>]; duplicate: []; move: [direction: -1 | 1]; remove: []; leave: [] }>()

const library = useLibrary()
const root = ref<HTMLElement>()
const choosing = ref<'picture' | 'target' | undefined>(props.attrs.file ? undefined : 'picture')

const file = computed(() => (props.attrs.file ? library.known.get(props.attrs.file) : undefined))
const { destination, fault } = useDestination(() => props.attrs.target)
const action = computed(() => effectiveAction(props.attrs.action, destination.value))
const can = (name: typeof action.value) => !destination.value || destination.value.actions.includes(name)
const valueOf = (event: Event) => (event.target as HTMLInputElement).value

function show(chosen: FileItem) {
  choosing.value = undefined
  // What was said of another picture does not hold of this one.
  emit('change', { file: chosen.id, alt: '' })
}

function lead(target: Target) {
  choosing.value = undefined
  emit('change', { target, action: firstAction(target) })
}

defineExpose({ focus: () => root.value?.querySelector<HTMLElement>('input, button')?.focus() })
</script>

<template>
  <section
    ref="root"
    class="note"
    aria-label="Settings of this picture"
    @keydown.esc.stop="choosing ? (choosing = undefined) : emit('leave')"
  >
    <div class="shown">
      <NuxtLink v-if="file" :to="`/desk/files/${file.id}`" class="title">{{ file.title }}</NuxtLink>
      <p v-else class="hint clay">No picture chosen yet.</p>
      <button type="button" class="plain" @click="choosing = choosing === 'picture' ? undefined : 'picture'">
        {{ file ? 'Other picture…' : 'Choose a picture…' }}
      </button>
      <FileFinder
        v-if="choosing === 'picture'"
        class="pop"
        label="Find a picture"
        family="picture"
        @choose="show"
        @close="choosing = undefined"
      />
    </div>
    <label v-if="!attrs.decorative" class="field"
      ><span>What it shows</span>
      <textarea
        rows="2"
        maxlength="300"
        :value="attrs.alt"
        placeholder="Read out to those who do not see it"
        @input="emit('change', { alt: valueOf($event) })"
      />
    </label>
    <p v-if="!attrs.decorative && !attrs.alt" class="hint clay">Say it in a few words, or tick that it only adorns.</p>
    <label class="tick"
      ><input type="checkbox" :checked="attrs.decorative" @change="emit('change', { decorative: !attrs.decorative })" /> It only
      adorns</label
    >
    <label class="field"
      ><span>Words below it</span
      ><input type="text" maxlength="300" :value="attrs.caption" placeholder="none" @input="emit('change', { caption: valueOf($event) })"
    /></label>
    <ChoiceField legend="Size" :choices="PICTURE_CHOICES" :value="attrs.size" @choose="emit('change', { size: $event })" />
    <ChoiceField
      v-if="attrs.size === 'small' || attrs.size === 'half'"
      legend="Place"
      :choices="ALIGN_CHOICES"
      :value="attrs.align"
      @choose="emit('change', { align: $event })"
    />
    <div class="leads">
      <p class="hint">
        {{ attrs.target ? `A click leads to “${destination?.title ?? 'nothing that is there'}”.` : 'A click does nothing.' }}
        <span v-if="attrs.target && fault" class="clay">{{ fault }}</span>
      </p>
      <button type="button" class="plain" @click="choosing = choosing === 'target' ? undefined : 'target'">
        {{ attrs.target ? 'Lead elsewhere…' : 'Lead somewhere…' }}
      </button>
      <button v-if="attrs.target" type="button" class="plain" @click="emit('change', { target: null })">Lead nowhere</button>
      <FileFinder
        v-if="choosing === 'target'"
        class="pop"
        label="Find what this leads to"
        anywhere
        @choose="lead({ kind: 'file', id: $event.id })"
        @lead="lead"
        @close="choosing = undefined"
      />
    </div>
    <fieldset v-if="attrs.target" class="field">
      <legend>A click</legend>
      <div class="choices">
        <label v-for="[name, words] in ACTION_CHOICES" :key="name" :class="{ off: !can(name) }"
          ><input
            type="radio"
            :name="`action-${attrs.placement}`"
            :checked="action === name"
            :disabled="!can(name)"
            @change="emit('change', { action: name })"
          /><span>{{ words }}</span></label
        >
      </div>
    </fieldset>
    <BlockActs @duplicate="emit('duplicate')" @move="emit('move', $event)" @remove="emit('remove')" />
  </section>
</template>

<style scoped>
.note {
  padding: 12px;
  background: #f5f8f7;
  border: 1px solid var(--line);
  border-left: 3px solid var(--water);
  border-radius: 0 4px 4px 0;
  display: grid;
  gap: 10px;
}
.shown,
.leads {
  position: relative;
}
.title {
  display: block;
  font-weight: 600;
  color: var(--ink);
  overflow-wrap: anywhere;
}
.shown > .plain,
.leads > .plain {
  margin-left: -8px;
  margin-right: 10px;
}
.pop {
  position: absolute;
  top: 100%;
  right: 0;
  z-index: 20;
  margin-top: 4px;
}
.tick {
  display: flex;
  gap: 7px;
  align-items: center;
}
</style>
