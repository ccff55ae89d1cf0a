<script setup lang="ts">
import { confirmPasswordSchema } from '~~/core/account/accountForms'

/** Leaves the site by oneself. */
const open = ref(false)
const { field, submit, problem, busy, leave } = useForm({
  schema: confirmPasswordSchema,
  begin: () => ({ password: '' }),
  send: async given => {
    await tell('/account', 'DELETE', given)
    window.location.assign('/desk/sign-in')
  },
})
</script>

<template>
  <section aria-labelledby="leave-head">
    <h2 id="leave-head">Leaving</h2>
    <VForm v-if="open" class="form" @submit.prevent="submit" @keydown.esc.stop="leave(() => (open = false))">
      <p class="hint">Your account goes, and you are signed out. What you did stays.</p>
      <VTextField v-focus v-bind="field('password')" label="Your password" type="password" autocomplete="current-password" />
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="acts">
        <VBtn type="submit" variant="outlined" color="clay" :loading="busy">Leave for good</VBtn><VBtn @click="open = false">Stay</VBtn>
      </div>
    </VForm>
    <div v-else class="acts"><VBtn color="clay" @click="open = true">Leave this site…</VBtn></div>
  </section>
</template>
