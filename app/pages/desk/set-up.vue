<script setup lang="ts">
import { SHORTEST_PASSWORD } from '~~/core/account/accountForms'
definePageMeta({ layout: 'door' })
useHead({ title: 'Set up' })

const input = reactive({ code: '', siteName: '', email: '', password: '' })
const { error, busy, enter } = useDoor(() => api('/setup', 'POST', input))
</script>

<template>
  <form class="form" @submit.prevent="enter">
    <h1>Make this Trough yours</h1>
    <label class="field"
      ><span>Set-up code</span
      ><input
        v-model="input.code"
        type="text"
        class="mono"
        autocomplete="off"
        spellcheck="false"
        required
        autofocus
        aria-describedby="code-hint"
    /></label>
    <p id="code-hint" class="hint">It stands in the console where Trough was started, as in ABCD-EFGH-JKLM.</p>
    <label class="field"><span>Name of your site</span><input v-model="input.siteName" type="text" maxlength="120" required /></label>
    <label class="field"><span>Your e-mail</span><input v-model="input.email" type="email" autocomplete="username" required /></label>
    <label class="field"
      ><span>A password, at least {{ SHORTEST_PASSWORD }} characters</span
      ><input v-model="input.password" type="password" autocomplete="new-password" :minlength="SHORTEST_PASSWORD" required
    /></label>
    <p v-if="error" class="problem" role="alert">{{ error }}</p>
    <button type="submit" class="main" :disabled="busy">{{ busy ? 'One moment…' : 'Begin' }}</button>
  </form>
</template>
