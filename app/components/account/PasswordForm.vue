<script setup lang="ts">
import { SHORTEST_PASSWORD, changePasswordSchema } from '~~/core/account/accountForms'

/** Changes one's password; whoever is signed in elsewhere is signed out. */
const notices = useNotices()
const { field, submit, problem, busy, reset } = useForm({
  schema: changePasswordSchema,
  begin: () => ({ old: '', password: '' }),
  send: async given => {
    await tell('/account/password', 'PUT', given)
    reset()
    notices.say('The password is changed, and everybody else is signed out.', { tone: 'works' })
  },
})
</script>

<template>
  <VForm class="form" aria-labelledby="password-head" @submit.prevent="submit">
    <h2 id="password-head">Password</h2>
    <VTextField v-bind="field('old')" label="The one you have" type="password" autocomplete="current-password" />
    <VTextField
      v-bind="field('password')"
      label="The new one"
      type="password"
      autocomplete="new-password"
      :hint="`At least ${SHORTEST_PASSWORD} characters: a few words that do not belong together are good.`"
    />
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div class="acts">
      <VBtn variant="outlined" type="submit" :loading="busy">Change the password</VBtn>
    </div>
    <p class="hint">
      Forgotten? A link comes by e-mail, from where you sign in. On the machine itself: <code>npm run trough password</code>
    </p>
  </VForm>
</template>

<style scoped>
.form {
  max-width: 460px;
}
</style>
