<script setup lang="ts">
useHead({ title: 'Setup: people and sign-in' })
</script>

<template>
  <div>
    <PasswordForm />
    <SecondFactor />
    <SessionList />
  </div>
</template>
