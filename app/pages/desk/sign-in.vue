<script setup lang="ts">
definePageMeta({ layout: 'door' })
useHead({ title: 'Sign in' })

const email = ref('')
const password = ref('')
const error = ref('')
const busy = ref(false)

async function signIn() {
  busy.value = true
  error.value = ''
  try {
    await api('/session', 'POST', { email: email.value, password: password.value })
    window.location.assign('/desk')
  }
  catch (caught) {
    error.value = wordsOf(caught)
    busy.value = false
  }
}
</script>

<template>
  <form class="form" @submit.prevent="signIn">
    <h1>Sign in</h1>
    <label class="field"><span>E-mail</span><input v-model="email" type="email" autocomplete="username" required autofocus></label>
    <label class="field"><span>Password</span><input v-model="password" type="password" autocomplete="current-password" required></label>
    <p v-if="error" class="problem" role="alert">{{ error }}</p>
    <button type="submit" class="main" :disabled="busy">{{ busy ? 'One moment…' : 'Sign in' }}</button>
  </form>
</template>
