<script setup lang="ts">
/** Who gets in to the desk, and how. */
useHead({ title: 'Account' })
</script>

<template>
  <div class="account">
    <header class="board-head">
      <NuxtLink to="/desk/setup" class="back">Setup</NuxtLink>
      <h1>Account</h1>
      <NuxtLink to="/desk/journal" class="plain">Who did what</NuxtLink>
    </header>
    <div class="parts">
      <PasswordForm />
      <SecondFactor />
      <SessionList />
    </div>
  </div>
</template>

<style scoped>
.account {
  flex: 1;
  overflow: auto;
}
.board-head {
  position: sticky;
  top: 0;
  z-index: 2;
}
.parts {
  display: grid;
  gap: 30px;
  max-width: 720px;
  padding: 18px 18px 40px;
}
</style>
