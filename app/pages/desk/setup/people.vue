<script setup lang="ts">
useHead({ title: 'Setup: password and sign-in' })
</script>

<template>
  <div>
    <PasswordForm />
    <SecondFactor />
    <SessionList />
    <LeaveForm />
  </div>
</template>
