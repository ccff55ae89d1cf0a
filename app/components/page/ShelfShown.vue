<script setup lang="ts">
import type { ShelfAttrs } from '~~/core/page/schema'
import { shownBy } from '~~/core/shelf/shelfLook'
import { SHELF_FACTS, SHELF_PARTS, SIDE_BY_SIDE, type OwnShown, type ShelfPart } from '~~/core/shelf/shown'
import { DENSITY_CHOICES, ICON_SIZE_CHOICES, LAYOUT_CHOICES, SHELF_FACT_WORDS, SHELF_PART_WORDS } from '~/editor/words'

/** How a shelf shows its files, in its margin: a layout, a saved look, and what it has otherwise. */
const props = defineProps<{ attrs: ShelfAttrs }>()
const emit = defineEmits<{ change: [attrs: Partial<ShelfAttrs>] }>()

const looks = useShelfLooks()
const { problem, attempt } = useAttempt()
const shown = computed(() => shownBy(props.attrs, id => looks.byId.get(id)?.shown))
const look = computed(() => (props.attrs.look ? looks.byId.get(props.attrs.look) : undefined))
const hasOwn = computed(() => !!props.attrs.layout || Object.keys(props.attrs.shown ?? {}).length > 0)
const isList = computed(() => shown.value.layout !== 'pictures')
const has = (part: ShelfPart) => shown.value.parts.includes(part)

const change = (own: Omit<OwnShown, 'layout'>) => emit('change', { shown: { ...props.attrs.shown, ...own } })
/** What was ordered for one layout does not fit another. */
const setLayout = (layout: ShelfAttrs['layout']) => emit('change', { layout, shown: null })

const ofItsOwn = (): OwnShown => {
  const { layout, ...own } = { ...look.value?.shown, ...(props.attrs.layout && { layout: props.attrs.layout }), ...props.attrs.shown }
  return { ...own, layout: layout ?? 'lines' }
}
const name = ref('')
const naming = ref<'new' | 'rename'>()
function startNaming(way: 'new' | 'rename') {
  naming.value = way
  name.value = way === 'rename' ? (look.value?.name ?? '') : ''
}
const saveName = () =>
  attempt(async () => {
    if (naming.value === 'rename') await looks.change(look.value!.id, { name: name.value.trim() })
    else wear((await looks.create({ name: name.value.trim(), shown: ofItsOwn() })).id)
    naming.value = undefined
  })
const wear = (id: string | null) => emit('change', { look: id, layout: undefined, shown: null })
/** All shelves that wear the look follow. */
const giveToLook = () =>
  attempt(async () => {
    await looks.change(look.value!.id, { shown: ofItsOwn() })
    wear(look.value!.id)
  })
const remove = () =>
  attempt(async () => {
    const own = ofItsOwn()
    const { layout, ...rest } = own
    const { id } = look.value!
    emit('change', { look: null, layout, shown: rest })
    await looks.remove(id)
  })
</script>

<template>
  <ChoiceField class="layouts" legend="Shown as" :choices="LAYOUT_CHOICES" :value="shown.layout" @choose="setLayout" />
  <p v-if="!isList" class="hint">Each is seen large when it is pressed, and had from there.</p>
  <FieldGroup heading="How it is shown" :names="[]">
    <div class="fields">
      <OrderedChoice
        v-if="isList"
        legend="Of each file"
        :names="SHELF_PARTS"
        :words="SHELF_PART_WORDS"
        :chosen="shown.parts"
        always="title"
        @choose="change({ parts: $event })"
      />
      <OrderedChoice
        v-if="has('facts') || !isList"
        :legend="shown.layout === 'table' ? 'Columns of facts' : 'Facts'"
        :names="SHELF_FACTS"
        :words="SHELF_FACT_WORDS"
        :chosen="shown.facts"
        @choose="change({ facts: $event })"
      />
      <NumberField
        v-if="has('new')"
        words="Days new"
        unit=""
        :least="1"
        :most="366"
        :value="shown.newDays"
        @change="change({ newDays: $event })"
      />
      <template v-if="SIDE_BY_SIDE.includes(shown.layout)">
        <NumberField
          words="Side by side"
          unit=""
          :least="1"
          :most="6"
          :value="shown.columns.wide"
          @change="change({ columns: { ...shown.columns, wide: $event } })"
        />
        <NumberField
          words="on phones"
          unit=""
          :least="1"
          :most="3"
          :value="shown.columns.narrow"
          @change="change({ columns: { ...shown.columns, narrow: $event } })"
        />
      </template>
      <ChoiceField
        v-else-if="isList"
        legend="Lines"
        :choices="DENSITY_CHOICES"
        :value="shown.density"
        @choose="change({ density: $event })"
      />
      <ChoiceField
        v-if="has('icon') || (has('picture') && !SIDE_BY_SIDE.includes(shown.layout))"
        legend="Icons and pictures"
        :choices="ICON_SIZE_CHOICES"
        :value="shown.icons"
        @choose="change({ icons: $event })"
      />
    </div>
  </FieldGroup>
  <FieldGroup heading="Look of this shelf" :names="[]">
    <div class="fields">
      <VSelect
        label="Wears the look"
        :model-value="look?.id ?? ''"
        :items="[{ value: '', title: 'none, as is usual' }, ...looks.items.map(({ id, name: title }) => ({ value: id, title }))]"
        @update:model-value="wear($event || null)"
      />
      <div v-if="!naming" class="acts">
        <VBtn @click="startNaming('new')">Save as a look…</VBtn>
        <template v-if="look">
          <VBtn v-if="hasOwn" title="Every shelf that wears it follows" @click="giveToLook">Change the look so</VBtn>
          <VBtn v-if="hasOwn" @click="wear(look.id)">As the look has it</VBtn>
          <VBtn @click="startNaming('rename')">Rename…</VBtn>
          <VBtn title="Shelves that wear it stay as they look" @click="remove">Delete the look</VBtn>
        </template>
      </div>
      <VForm v-else class="naming" @submit.prevent="saveName" @keydown.esc.stop="naming = undefined">
        <VTextField v-model="name" v-focus label="Name of the look" maxlength="60" />
        <VBtn type="submit" variant="outlined" :disabled="!name.trim()">Save</VBtn>
        <VBtn @click="naming = undefined">Leave it</VBtn>
      </VForm>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    </div>
  </FieldGroup>
</template>

<style scoped>
.layouts :deep(.v-selection-control-group) {
  flex-wrap: wrap;
}
.layouts :deep(.v-radio) {
  flex-basis: 30%;
}
.layouts :deep(.v-radio:nth-child(n + 4)) {
  border-top: 1px solid #c9d2d0;
}
.layouts :deep(.v-radio:nth-child(4)) {
  border-left: 0;
}
.fields {
  display: grid;
  gap: 10px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  margin-left: -8px;
}
.naming {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 6px;
  align-items: end;
}
.problem {
  color: #9a4420;
}
</style>
