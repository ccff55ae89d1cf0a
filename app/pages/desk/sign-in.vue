<script setup lang="ts">
definePageMeta({ layout: 'door' })
useHead({ title: 'Sign in' })

const email = ref('')
const password = ref('')
const { error, busy, enter } = useDoor(() => api('/session', 'POST', { email: email.value, password: password.value }))
</script>

<template>
  <form class="form" @submit.prevent="enter">
    <h1>Sign in</h1>
    <label class="field"><span>E-mail</span><input v-model="email" type="email" autocomplete="username" required autofocus></label>
    <label class="field"><span>Password</span><input v-model="password" type="password" autocomplete="current-password" required></label>
    <p v-if="error" class="problem" role="alert">{{ error }}</p>
    <button type="submit" class="main" :disabled="busy">{{ busy ? 'One moment…' : 'Sign in' }}</button>
  </form>
</template>
