<script setup lang="ts">
import { overridesBetween, type Appearance, type Overrides } from '~~/core/look/appearance'
import { newLookSchema } from '~~/core/look/look'
import { appearanceOf } from '~~/core/look/styles'
import { useBench } from '~/bench/bench'
import type { Tone } from '~~/core/look/palette'
import type { ButtonAttrs } from '~~/core/page/schema'

/** How one button looks: the look it wears, and what it has otherwise. */
const props = defineProps<{
  attrs: Pick<ButtonAttrs, 'placement' | 'look' | 'own'>
  /** what a visitor reads on it */ label: string
  note: string
  /** the background it stands on */ tone: Tone
}>()
const emit = defineEmits<{ change: [attrs: Partial<ButtonAttrs>] }>()

const looks = useLooks()
const notices = useNotices()
const look = computed(() => looks.lookOf(props.attrs.look))
const appearance = computed(() => appearanceOf(props.attrs, id => looks.byId.get(id)?.appearance))
const overridden = computed(() => new Set(Object.keys(props.attrs.own ?? {}) as (keyof Appearance)[]))
const palette = computed(() => looks.palettes[props.tone])
const naming = ref(false)
const form = useForm({
  schema: newLookSchema.pick({ name: true }),
  begin: () => ({ name: '' }),
  send: async ({ name }) => {
    const made = await looks.create({ name, appearance: appearance.value })
    naming.value = false
    emit('change', { look: made.id, own: null })
    notices.say(`“${made.name}” is a look now; any button can wear it.`, { tone: 'works' })
  },
})
function beginNaming() {
  form.reset()
  naming.value = true
}
const { problem, attempt } = useAttempt()

const { sheet, screen } = useBench()
/** pixels it has on the sheet, where that is less than was set */
const narrowedTo = ref<number>()
watch(
  () => [appearance.value.width, screen.width.value, screen.zoom.value, props.attrs.placement] as const,
  async ([width, , , placement]) => {
    await nextTick()
    const button = sheet.value?.querySelector(`[data-placement="${placement}"] .tr-button`)
    const has = button ? screen.inPage(button.getBoundingClientRect().width) : undefined
    narrowedTo.value = typeof width === 'number' && has && has < width ? has : undefined
  },
  { immediate: true, flush: 'post' },
)

/** What is as the look has it is not written down: it follows the look. */
function change(changed: Partial<Appearance>) {
  const own: Overrides = overridesBetween(look.value.appearance, { ...appearance.value, ...changed })
  emit('change', { own: Object.keys(own).length ? own : null })
}

function reset(names: (keyof Appearance)[]) {
  change(Object.fromEntries(names.map(each => [each, look.value.appearance[each]])))
}

const putIntoLook = () =>
  attempt(async () => {
    const { id, name: title, appearance: before } = look.value
    const { own } = props.attrs
    await looks.change(id, appearance.value)
    emit('change', { own: null })
    notices.say(`Every button that wears “${title}” looks like this now.`, {
      tone: 'works',
      action: {
        label: 'Undo',
        run: () =>
          void attempt(async () => {
            await looks.change(id, before)
            emit('change', { own })
          }),
      },
    })
  })
</script>

<template>
  <div class="look-fields">
    <VRadioGroup
      class="wardrobe tiles"
      aria-label="Look"
      :model-value="look.id"
      @update:model-value="emit('change', { look: $event as string })"
    >
      <VRadio v-for="each in looks.items" :key="each.id" :value="each.id">
        <template #label
          ><LookSample :look="each" /><span>{{ each.name }}</span></template
        >
      </VRadio>
    </VRadioGroup>
    <div v-if="overridden.size" class="otherwise">
      <p>This button differs from “{{ look.name }}”.</p>
      <VBtn @click="emit('change', { own: null })">As the look has it</VBtn>
      <VBtn v-if="!look.builtIn" @click="putIntoLook">Put into the look</VBtn>
      <VBtn v-if="!naming" @click="beginNaming">Save as a look…</VBtn>
      <VForm v-else class="naming" @submit.prevent="form.submit" @keydown.esc.stop="form.leave(() => (naming = false))">
        <VTextField v-focus v-bind="form.field('name')" label="Name of the look" maxlength="60" />
        <VBtn type="submit" variant="outlined" :loading="form.busy.value">Save</VBtn>
      </VForm>
      <p v-if="naming && form.problem.value" class="hint clay" role="alert">{{ form.problem.value }}</p>
    </div>
    <p v-if="problem" class="hint clay" role="alert">{{ problem }}</p>
    <FitLine :appearance="appearance" :label="label" :note="note" @change="change" />
    <AppearanceFields
      :appearance="appearance"
      :palette="palette"
      :overridden="overridden"
      :narrowed-to="narrowedTo"
      @change="change"
      @reset="reset"
    />
    <NuxtLink to="/desk/looks" class="plain all">All looks and colours</NuxtLink>
  </div>
</template>

<style scoped>
.look-fields {
  display: grid;
  gap: 9px;
}
.wardrobe :deep(.v-selection-control-group) {
  grid-template-columns: repeat(auto-fill, minmax(76px, 1fr));
}
.wardrobe :deep(.v-radio .v-label) {
  justify-items: center;
  padding: 4px 2px 3px;
}
.wardrobe span:last-child {
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.otherwise {
  border-left: 4px solid var(--straw);
  padding-left: 8px;
  font-size: 12.5px;
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
}
.otherwise p {
  flex-basis: 100%;
}
.otherwise .plain {
  padding: 0 6px;
  margin-left: -6px;
  margin-right: 6px;
}
.naming {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 6px;
  align-items: end;
  width: 100%;
}
.all {
  justify-self: start;
  margin-left: -8px;
}
</style>
