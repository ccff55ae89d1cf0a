<script setup lang="ts">
import { CLOSED_GATE, isBuiltIn, OPEN_GATE } from '~~/core/gate/gate'

/** Who may have something: what is said further up, everyone, or a gate; a new one with a password is one press away. */
const props = defineProps<{
  label: string
  /** the gate that holds where nothing is said here; null where it is open */
  above: string | null
  /** what a new gate is called after */
  title: string
}>()
const gate = defineModel<string | null>({ required: true })
const rights = useRights()
const gates = useGates()
const { problem, attempt } = useAttempt()
const NEW = { password: 'new-password', email: 'new-email' } as const
const ABOVE = 'above'

const choices = computed(() => [
  { value: ABOVE, title: props.above === null ? 'Everyone' : `As above: ${gates.nameOf(props.above)}` },
  ...(props.above === null ? [] : [{ value: OPEN_GATE, title: 'Everyone' }]),
  { value: CLOSED_GATE, title: gates.nameOf(CLOSED_GATE) },
  ...gates.items.map(({ id, name, rule }) => ({ value: id, title: name, props: { subtitle: GATE_KIND_WORDS[rule.kind] } })),
  ...(rights.may('gates')
    ? [
        { value: NEW.password, title: 'Whoever has a new password' },
        { value: NEW.email, title: 'Whoever leaves an e-mail address' },
      ]
    : // What gates are called is for those who decide about them.
      gate.value && !isBuiltIn(gate.value)
      ? [{ value: gate.value, title: 'Whoever passes its gate' }]
      : []),
])
const chosen = computed(() => gate.value ?? ABOVE)

async function choose(value: string) {
  const kind = value === NEW.password ? 'password' : value === NEW.email ? 'email' : undefined
  if (!kind) {
    gate.value = value === ABOVE ? null : value
    return
  }
  await attempt(async () => {
    gate.value = (await gates.createFor(props.title, kind)).id
  })
}
onMounted(() => attempt(async () => gates.loaded || gates.load()))
const fresh = computed(() => (gate.value ? gates.fresh[gate.value] : undefined))
</script>

<template>
  <div class="gate-select">
    <VSelect
      class="wide"
      :disabled="!rights.may('gates')"
      :label="label"
      :items="choices"
      :model-value="chosen"
      @update:model-value="choose"
    />
    <CopyLine v-if="fresh" name="Its password: write it down, it is not shown again" :address="fresh" />
    <NuxtLink v-if="gate && !isBuiltIn(gate) && rights.may('gates')" :to="`/desk/gates?at=${gate}`" class="plain"
      >Set up this gate</NuxtLink
    >
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.gate-select {
  display: grid;
  gap: 4px;
  width: 100%;
}
.wide {
  width: 100%;
}
</style>
