<script setup lang="ts">
import { changedPasswordSchema, type GateItem } from '~~/core/gate/gate'

/** The passwords that open a gate: each can be taken back by itself, and all be changed in one act. */
const props = defineProps<{ gate: GateItem }>()
const gates = useGates()
const { problem, attempt } = useAttempt()
/** one more, or one in the place of all */
const writing = ref<'add' | 'change'>()
const fresh = computed(() => gates.fresh[props.gate.id])

const {
  fields,
  field,
  submit,
  problem: refusal,
  busy,
  reset,
  leave,
} = useForm({
  schema: changedPasswordSchema.required(),
  begin: () => ({ label: '', password: offeredPassword(), endPasses: false }),
  send: async ({ label, password, endPasses }) => {
    if (writing.value === 'add') await gates.addPassword(props.gate.id, label, password)
    else await gates.changePassword(props.gate.id, label, password, endPasses)
    writing.value = undefined
  },
})
function begin(what: 'add' | 'change') {
  reset()
  writing.value = what
}
</script>

<template>
  <section aria-labelledby="passwords-head">
    <h2 id="passwords-head">{{ gate.passwords.length === 1 ? 'Password' : 'Passwords' }}</h2>
    <ul>
      <li v-for="(password, index) in gate.passwords" :key="password.id">
        <span
          >{{ password.label || (gate.passwords.length === 1 ? 'For everyone' : `Password ${index + 1}`) }}, since
          {{ longDate(password.created) }}</span
        >
        <VBtn
          v-if="gate.passwords.length > 1"
          :aria-label="`Take back: ${password.label || `password ${index + 1}`}`"
          @click="attempt(() => gates.removePassword(gate.id, password.id))"
          >Take back</VBtn
        >
      </li>
    </ul>
    <CopyLine v-if="fresh" name="Write it down, it is not shown again" :address="fresh" />
    <VForm v-if="writing" class="form" @submit.prevent="submit" @keydown.esc.stop="leave(() => (writing = undefined))">
      <VTextField v-focus v-bind="field('password')" label="New password" maxlength="200" spellcheck="false" autocomplete="off" />
      <VTextField v-bind="field('label')" label="Whom it is for" maxlength="120" placeholder="may be left empty" />
      <VCheckbox v-if="writing === 'change'" v-model="fields.endPasses" label="Ask those again who came by an earlier one" />
      <p v-if="refusal" class="problem" role="alert">{{ refusal }}</p>
      <div class="acts">
        <VBtn type="submit" variant="outlined" :loading="busy">{{ writing === 'add' ? 'Add it' : 'Change it' }}</VBtn>
        <VBtn @click="fields.password = offeredPassword()">Another one</VBtn>
        <VBtn @click="writing = undefined">Cancel</VBtn>
      </div>
    </VForm>
    <div v-else class="acts">
      <VBtn variant="outlined" @click="begin('change')">Change the password…</VBtn>
      <VBtn @click="begin('add')">One more…</VBtn>
    </div>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 6px;
}
h2 {
  margin: 0;
  font-size: 13px;
  font-weight: 650;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 2px 8px;
  padding: 3px 0;
  border-bottom: 1px solid var(--line);
}
.form {
  display: grid;
  gap: 8px;
}
</style>
