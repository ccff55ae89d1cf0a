<script setup lang="ts">
import { signInSchema } from '~~/core/account/accountForms'
definePageMeta({ layout: 'door' })
useHead({ title: 'Sign in' })

// Who signs in finds nothing of what another did in this window.
onMounted(() => sessionStorage.clear())

/** a code of the app is asked for, too */
const secondFactor = ref(false)
const { field, submit, problem, busy } = useForm({
  schema: signInSchema,
  begin: () => ({ email: '', password: '', code: '' }),
  send: async ({ code, ...given }) => {
    try {
      await tell('/session', 'POST', { ...given, code: code || undefined })
    } catch (refusal) {
      if (!(refusal instanceof ApiProblem) || !refusal.extra.secondFactor) throw refusal
      const asked = secondFactor.value
      secondFactor.value = true
      if (asked) throw refusal
      return
    }
    window.location.assign('/desk')
  },
})
</script>

<template>
  <VForm class="form" @submit.prevent="submit">
    <h1>Sign in</h1>
    <VTextField v-focus v-bind="field('email')" label="E-mail" type="email" autocomplete="username" />
    <VTextField v-bind="field('password')" label="Password" type="password" autocomplete="current-password" />
    <VTextField
      v-if="secondFactor"
      v-focus
      v-bind="field('code')"
      label="Code that your app shows, or a recovery code"
      class="mono"
      inputmode="numeric"
      autocomplete="one-time-code"
    />
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <VBtn type="submit" variant="flat" :loading="busy">Sign in</VBtn>
    <p><NuxtLink to="/desk/lost">Lost your password?</NuxtLink></p>
  </VForm>
</template>
