<script setup lang="ts">
import { z } from 'zod'
import { emailSchema } from '~~/core/account/accountForms'

/** Asks for a link by which another password is chosen. */
definePageMeta({ layout: 'door' })
useHead({ title: 'Lost password' })
const asked = ref(false)
const { field, submit, problem, busy } = useForm({
  schema: z.object({ email: emailSchema }),
  begin: () => ({ email: '' }),
  send: async given => {
    await tell('/entry/lost', 'POST', given)
    asked.value = true
  },
})
</script>

<template>
  <div v-if="asked" class="form">
    <h1>Look into your messages</h1>
    <p role="status">
      If somebody of that address works here, a link is on its way to them. It holds for half an hour. Where no mail service is set up, an
      owner finds it in the outbox.
    </p>
    <p><NuxtLink to="/desk/sign-in">Back to signing in</NuxtLink></p>
  </div>
  <VForm v-else class="form" @submit.prevent="submit">
    <h1>Another password</h1>
    <VTextField v-focus v-bind="field('email')" label="E-mail" type="email" autocomplete="username" />
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <VBtn type="submit" variant="flat" :loading="busy">Send me a link</VBtn>
    <p><NuxtLink to="/desk/sign-in">Back to signing in</NuxtLink></p>
  </VForm>
</template>
