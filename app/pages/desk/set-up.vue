<script setup lang="ts">
import { SHORTEST_PASSWORD, setUpSchema } from '~~/core/account/accountForms'
definePageMeta({ layout: 'door' })
useHead({ title: 'Set up' })

const { field, submit, problem, busy } = useForm({
  schema: setUpSchema,
  begin: () => ({ code: '', siteName: '', email: '', password: '' }),
  send: async given => {
    await tell('/setup', 'POST', given)
    window.location.assign('/desk')
  },
})
</script>

<template>
  <VForm class="form" @submit.prevent="submit">
    <h1>Make this Trough yours</h1>
    <VTextField
      v-focus
      v-bind="field('code')"
      label="Set-up code"
      class="mono"
      autocomplete="off"
      spellcheck="false"
      aria-describedby="code-hint"
    />
    <p id="code-hint" class="hint">It stands in the console where Trough was started, as in ABCD-EFGH-JKLM.</p>
    <VTextField v-bind="field('siteName')" label="Name of your site" maxlength="120" />
    <VTextField v-bind="field('email')" label="Your e-mail" type="email" autocomplete="username" />
    <VTextField
      v-bind="field('password')"
      :label="`A password, at least ${SHORTEST_PASSWORD} characters`"
      type="password"
      autocomplete="new-password"
    />
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <VBtn type="submit" variant="flat" :loading="busy">Begin</VBtn>
  </VForm>
</template>
