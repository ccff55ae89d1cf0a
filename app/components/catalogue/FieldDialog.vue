<script setup lang="ts">
import { MOST_FIELDS, TITLE, isChoice, isFileKind, newField, type Field, type FieldKind } from '~~/core/catalogue/field'
import { withChoicesFrom, type Loss } from '~~/core/catalogue/fieldChange'
import type { CatalogueItem } from '~~/core/catalogue/catalogue'
import { newId } from '~~/core/id'
import { KIND_ITEMS } from '~/catalogue/fieldWords'

/** A field of a catalogue: a new one, or one that is changed. */
const props = defineProps<{
  catalogue: CatalogueItem
  field?: Field
  /** what a new one begins as */ begin?: { name: string; kind: FieldKind }
}>()
const emit = defineEmits<{ close: []; done: [field: Field] }>()

const catalogues = useCatalogues()
const entries = useEntries()
const draft = reactive<Field>(
  props.field
    ? (JSON.parse(JSON.stringify(props.field)) as Field)
    : newField(newId(8), props.begin?.name ?? 'Field', props.begin?.kind ?? 'text'),
)
if (!props.field && !props.begin) draft.name = ''
const isTitle = computed(() => draft.id === TITLE)
const losses = ref<Loss[]>([])
const { problem, attempt } = useAttempt()
const busy = ref(false)
const choices = ref(draft.options.map(({ name }) => name).join('\n'))
const kinds = computed(() => (isTitle.value ? KIND_ITEMS.filter(({ value }) => value === 'text') : KIND_ITEMS))

/** Choices by their lines: a name that was there keeps what entries chose, and a line that was only reworded does as well. */
function optionsFromLines() {
  const names = [
    ...new Set(
      choices.value
        .split('\n')
        .map(name => name.trim())
        .filter(Boolean),
    ),
  ]
  const before = draft.options
  const kept = new Set(names)
  return names.map((name, index) => {
    const same = before.find(option => option.name === name)
    if (same) return same
    const reworded = names.length === before.length && !kept.has(before[index]!.name) ? before[index] : undefined
    return { id: reworded?.id ?? newId(8), name: name.slice(0, 120) }
  })
}

/** Names that can be chosen as what new entries begin with. */
const beginnings = computed(() => (draft.kind === 'yesNo' ? ['Yes', 'No'] : optionsFromLines().map(({ name }) => name)))
const choosingFolder = ref(false)
const folders = useFolders()

async function save(despite = false) {
  busy.value = true
  losses.value = []
  await attempt(async () => {
    if (isChoice(draft.kind)) draft.options = optionsFromLines()
    const before = props.field
    const field: Field = before
      ? withChoicesFrom(
          before,
          { ...draft },
          entries.items.map(({ values }) => values[draft.id]),
        )
      : { ...draft }
    if (!field.name.trim()) throw new Error('Give the field a name.')
    const all = before ? props.catalogue.fields.map(each => (each.id === field.id ? field : each)) : [...props.catalogue.fields, field]
    if (all.length > MOST_FIELDS) throw new Error(`Keep it to ${MOST_FIELDS} fields.`)
    losses.value = await catalogues.changeFields(props.catalogue.id, all, despite)
    if (losses.value.length) return
    await entries.load()
    emit('done', field)
    emit('close')
  })
  busy.value = false
}
</script>

<template>
  <VDialog :model-value="true" aria-labelledby="field-head" @update:model-value="emit('close')">
    <VForm class="dialog" @submit.prevent="save()">
      <h2 id="field-head">{{ field ? `The field “${field.name}”` : 'A new field' }}</h2>
      <VTextField v-model="draft.name" v-focus label="Name" maxlength="80" />
      <VSelect v-model="draft.kind" label="Holds" :items="kinds" :item-props="true" :disabled="isTitle" />
      <VTextarea
        v-if="isChoice(draft.kind)"
        v-model="choices"
        label="Choices, one in each line"
        rows="4"
        auto-grow
        max-rows="10"
        hint="In the order in which they are shown and sorted. Left empty, they are what is written in the field."
      />
      <div v-if="draft.kind === 'number'" class="pair">
        <VTextField v-model="draft.unit" label="Unit" maxlength="20" placeholder="kg" />
        <VNumberInput v-model="draft.decimals" label="Digits behind the sign" :min="0" :max="6" clearable />
      </div>
      <VTextField
        v-if="draft.kind === 'money'"
        v-model="draft.currency"
        label="Currency"
        maxlength="3"
        hint="Three letters: EUR, GBP, USD."
      />
      <VSelect
        v-if="isChoice(draft.kind) || draft.kind === 'yesNo'"
        :model-value="draft.initial || null"
        label="New entries begin with"
        :items="beginnings"
        placeholder="nothing"
        clearable
        @update:model-value="draft.initial = $event ?? ''"
      />
      <VTextField
        v-else-if="!isTitle && !isFileKind(draft.kind)"
        v-model="draft.initial"
        label="New entries begin with"
        placeholder="nothing"
        maxlength="500"
      />
      <div v-if="isFileKind(draft.kind)" class="folder">
        <p v-if="draft.folder">
          Files that come into “{{ folders.nameOf(draft.folder) }}” find their entries by their names; a newer one takes the place of an
          older one.
        </p>
        <p v-else class="hint">A folder can feed it: files that come into that folder find their entries by their names.</p>
        <VBtn variant="outlined" @click="choosingFolder = true">{{ draft.folder ? 'Another folder…' : 'Take files from a folder…' }}</VBtn>
        <VBtn v-if="draft.folder" @click="draft.folder = null">From none</VBtn>
      </div>
      <VTextField v-model="draft.hint" label="Help where it is filled in" maxlength="200" />
      <VCheckbox v-model="draft.required" :disabled="isTitle" label="An entry goes live only with it" />
      <VCheckbox v-if="draft.kind === 'text'" v-model="draft.unique" label="No two entries have the same" />
      <VCheckbox v-model="draft.listed" :disabled="isTitle" label="Has a column in the table and in lists" />
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div v-if="losses.length" role="alert" class="problem">
        <p v-for="loss in losses" :key="loss.field">{{ loss.words }}</p>
        <VBtn color="clay" variant="outlined" @click="save(true)">Change it all the same</VBtn>
      </div>
      <div class="acts">
        <VBtn type="submit" variant="flat" :loading="busy">{{ field ? 'Change the field' : 'Add the field' }}</VBtn>
        <VBtn @click="emit('close')">Cancel</VBtn>
      </div>
    </VForm>
    <FolderPickDialog
      v-if="choosingFolder"
      question="Which folder feeds it?"
      hint="Files in it and below find their entries by name or number. What you put into an entry from elsewhere stays."
      act="Take files from it"
      @choose="((draft.folder = $event), (choosingFolder = false))"
      @close="choosingFolder = false"
    />
  </VDialog>
</template>

<style scoped>
.dialog {
  display: grid;
  gap: 10px;
}
.dialog > .v-input {
  width: 100%;
}
.folder p {
  margin-bottom: 4px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
</style>
