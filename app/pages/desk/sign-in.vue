<script setup lang="ts">
definePageMeta({ layout: 'door' })
useHead({ title: 'Sign in' })

const email = ref('')
const password = ref('')
const code = ref('')
/** a code of the app is asked for, too */
const secondFactor = ref(false)
const { error, busy, enter } = useDoor(async () => {
  try {
    await api('/session', 'POST', { email: email.value, password: password.value, code: code.value || undefined })
  } catch (problem) {
    if (!(problem instanceof ApiProblem) || !problem.extra.secondFactor) throw problem
    const asked = secondFactor.value
    secondFactor.value = true
    if (asked) throw problem
    return false
  }
})
</script>

<template>
  <form class="form" @submit.prevent="enter">
    <h1>Sign in</h1>
    <label class="field"><span>E-mail</span><input v-model="email" type="email" autocomplete="username" required autofocus /></label>
    <label class="field"><span>Password</span><input v-model="password" type="password" autocomplete="current-password" required /></label>
    <label v-if="secondFactor" class="field"
      ><span>Code that your app shows, or a recovery code</span
      ><input v-model="code" type="text" class="mono" inputmode="numeric" autocomplete="one-time-code" required autofocus
    /></label>
    <p v-if="error" class="problem" role="alert">{{ error }}</p>
    <button type="submit" class="main" :disabled="busy">{{ busy ? 'One moment…' : 'Sign in' }}</button>
  </form>
</template>
