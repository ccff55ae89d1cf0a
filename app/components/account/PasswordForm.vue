<script setup lang="ts">
import { SHORTEST_PASSWORD, passwordSchema } from '~~/core/account/accountForms'

/** Changes one's password; whoever is signed in elsewhere is signed out. */
const notices = useNotices()
const input = reactive({ old: '', password: '' })
const problem = ref('')
const busy = ref(false)
const longEnough = (password: string) =>
  !password || passwordSchema.safeParse(password).success || `At least ${SHORTEST_PASSWORD} characters.`

async function save() {
  problem.value = ''
  busy.value = true
  try {
    await api('/account/password', 'PUT', input)
    Object.assign(input, { old: '', password: '' })
    notices.say('The password is changed, and everybody else is signed out.', { tone: 'works' })
  } catch (error) {
    problem.value = wordsOf(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <VForm class="form" aria-labelledby="password-head" @submit.prevent="save">
    <h2 id="password-head">Password</h2>
    <VTextField v-model="input.old" label="The one you have" type="password" autocomplete="current-password" required />
    <VTextField
      v-model="input.password"
      label="The new one"
      type="password"
      autocomplete="new-password"
      :rules="[longEnough]"
      :hint="`At least ${SHORTEST_PASSWORD} characters: a few words that do not belong together are good.`"
      required
    />
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div class="acts">
      <VBtn type="submit" :loading="busy" :disabled="!input.old || longEnough(input.password) !== true || !input.password"
        >Change the password</VBtn
      >
    </div>
    <p class="hint">Forgotten? On the machine Trough runs on: <code>npm run trough password</code></p>
  </VForm>
</template>

<style scoped>
.form {
  max-width: 460px;
}
</style>
