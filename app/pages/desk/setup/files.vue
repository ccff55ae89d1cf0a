<script setup lang="ts">
useHead({ title: 'Setup: files' })
</script>

<template>
  <div>
    <FetchHosts />
    <ProgramList />
  </div>
</template>
