<script setup lang="ts">
import { z } from 'zod'
import { SHORTEST_PASSWORD, accountSchema, passwordSchema } from '~~/core/account/accountForms'
import { entryForSchema, type EntryFor } from '~~/core/people/person'

/** Where the link of an invitation, or of a lost password, leads: a password is chosen. */
definePageMeta({ layout: 'door' })
useHead({ title: 'Choose a password' })

const enteredSchema = z.object({ account: accountSchema.nullable() })
const token = useRoute().hash.slice(1)
const known = shallowRef<EntryFor>()
const refusal = ref('')
/** the password is chosen, and a code is asked for now */
const chosen = ref(false)

onMounted(async () => {
  sessionStorage.clear()
  try {
    known.value = await ask(entryForSchema, '/entry/look', 'POST', { token })
  } catch (error) {
    refusal.value = wordsOf(error)
  }
})
const { field, submit, problem, busy } = useForm({
  schema: z.object({ name: z.string().trim().max(120), password: passwordSchema }),
  begin: () => ({ name: '', password: '' }),
  send: async ({ name, password }) => {
    const { account } = await ask(enteredSchema, '/entry', 'POST', { token, password, ...(name && { name }) })
    if (account) window.location.assign('/desk')
    else chosen.value = true
  },
})
</script>

<template>
  <div v-if="refusal" class="form">
    <h1>That link does not lead in</h1>
    <p role="alert">{{ refusal }}</p>
    <p><NuxtLink to="/desk/lost">Lost your password?</NuxtLink> <NuxtLink to="/desk/sign-in">Sign in</NuxtLink></p>
  </div>
  <div v-else-if="chosen" class="form">
    <h1>The password is changed</h1>
    <VBtn to="/desk/sign-in" variant="flat">Sign in with it</VBtn>
  </div>
  <VForm v-else-if="known" class="form" @submit.prevent="submit">
    <h1>{{ known.kind === 'invitation' ? `Help with ${known.site}` : 'Choose another password' }}</h1>
    <VTextField :model-value="known.email" label="E-mail" autocomplete="username" readonly />
    <VTextField v-if="known.kind === 'invitation'" v-bind="field('name')" label="Your name" autocomplete="name" />
    <VTextField
      v-bind="field('password')"
      label="A password of your own"
      type="password"
      autocomplete="new-password"
      :hint="`At least ${SHORTEST_PASSWORD} characters: a few words that do not belong together are good.`"
      persistent-hint
    />
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <VBtn type="submit" variant="flat" :loading="busy">{{ known.kind === 'invitation' ? 'Come in' : 'Change it' }}</VBtn>
  </VForm>
  <p v-else role="status">Reading the link…</p>
</template>
