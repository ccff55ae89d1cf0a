<script setup lang="ts">
import { mdiArrowDown, mdiArrowUp, mdiClose } from '@mdi/js'
import { newId } from '~~/core/id'
import { FIELD_KINDS, gateFieldSchema, type GateField } from '~~/core/gate/fields'
import type { GateItem, GateRule } from '~~/core/gate/gate'

/** What a gate asks beside the e-mail address, what has to be ticked, and what comes then. */
const props = defineProps<{ gate: GateItem }>()
const emit = defineEmits<{ set: [part: Partial<GateRule>] }>()
const pages = usePages()
const rule = computed(() => props.gate.rule)
const KINDS = FIELD_KINDS.map(kind => ({
  value: kind,
  title: { text: 'A line', long: 'Several lines', choice: 'A choice', tick: 'A tick' }[kind],
}))
const thanks = computed(() => [
  { value: null, title: 'The download itself' },
  ...pages.items.filter(({ edge, published }) => !edge && published).map(({ id, title }) => ({ value: id, title: `The page “${title}”` })),
])

/** Fields that are being written: what is not whole yet is not sent. */
const fields = ref<GateField[]>([])
let kept = ''
watch(
  () => rule.value.fields,
  now => {
    // What is being written stays, whatever else of the gate is saved meanwhile.
    if (JSON.stringify(now) === kept) return
    kept = JSON.stringify(now)
    fields.value = now.map(field => ({ ...field, choices: [...field.choices] }))
  },
  { immediate: true },
)
function save() {
  if (!fields.value.every(field => gateFieldSchema.safeParse(field).success)) return
  kept = JSON.stringify(fields.value)
  emit('set', { fields: fields.value })
}
function add() {
  fields.value.push({ id: newId(8), kind: 'text', label: '', required: false, choices: [] })
}
function move(index: number, by: number) {
  const [field] = fields.value.splice(index, 1)
  fields.value.splice(index + by, 0, field!)
  save()
}
function remove(index: number) {
  fields.value.splice(index, 1)
  save()
}
const choicesOf = (text: string) => [
  ...new Set(
    text
      .split('\n')
      .map(line => line.trim())
      .filter(Boolean),
  ),
]
</script>

<template>
  <section aria-labelledby="email-head">
    <h2 id="email-head">Beside the e-mail address</h2>
    <fieldset v-for="(field, index) in fields" :key="field.id">
      <legend class="tr-spoken">{{ field.label || 'New field' }}</legend>
      <VTextField
        v-focus="!field.label"
        label="What is asked"
        maxlength="120"
        :model-value="field.label"
        @change="((field.label = ($event.target as HTMLInputElement).value), save())"
      />
      <VSelect v-model="field.kind" label="How" :items="KINDS" @update:model-value="save" />
      <VTextarea
        v-if="field.kind === 'choice'"
        label="Choices, one a line"
        rows="3"
        :model-value="field.choices.join('\n')"
        @change="((field.choices = choicesOf(($event.target as HTMLTextAreaElement).value)), save())"
      />
      <div class="acts">
        <VCheckbox v-model="field.required" label="Has to be filled in" @update:model-value="save" />
        <VBtn :disabled="!index" :aria-label="`Further up: ${field.label}`" @click="move(index, -1)"
          ><VIcon :icon="mdiArrowUp" size="16"
        /></VBtn>
        <VBtn :disabled="index === fields.length - 1" :aria-label="`Further down: ${field.label}`" @click="move(index, 1)"
          ><VIcon :icon="mdiArrowDown" size="16"
        /></VBtn>
        <VBtn :aria-label="`Take off: ${field.label}`" @click="remove(index)"><VIcon :icon="mdiClose" size="16" /></VBtn>
      </div>
    </fieldset>
    <VBtn variant="outlined" @click="add">Ask for something more</VBtn>
    <VTextarea
      :key="gate.id"
      label="What they tick before they go on"
      rows="2"
      maxlength="2000"
      placeholder="I agree that Marlpit writes to me about new price lists."
      :model-value="rule.consent"
      @change="emit('set', { consent: ($event.target as HTMLTextAreaElement).value })"
    />
    <p class="hint">It is never ticked beforehand, and kept word for word with each address. Left empty: nothing to tick.</p>
    <VCheckbox
      label="Let them confirm the address by a link in a message first"
      :model-value="rule.confirm"
      @update:model-value="emit('set', { confirm: !!$event })"
    />
    <VSelect label="Then comes" :items="thanks" :model-value="rule.thanks" @update:model-value="emit('set', { thanks: $event })" />
    <NuxtLink :to="`/desk/contacts?gate=${gate.id}`">Who left an address here</NuxtLink>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}
h2 {
  margin: 0;
  font-size: 13px;
  font-weight: 650;
}
fieldset {
  display: grid;
  gap: 8px;
  margin: 0;
  padding: 8px;
  border: 1px solid var(--line);
  background: #fff;
}
.acts {
  align-items: center;
}
</style>
