<script setup lang="ts">
useHead({ title: 'Setup: people and sign-in' })
</script>

<template>
  <div class="parts">
    <PasswordForm />
    <SecondFactor />
    <SessionList />
  </div>
</template>

<style scoped>
.parts {
  display: grid;
  gap: 30px;
}
</style>
