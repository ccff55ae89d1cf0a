<script setup lang="ts">
useHead({ title: 'Setup: site' })
const session = useSession()
</script>

<template>
  <!-- What is written before the site is known would be lost when that arrives. -->
  <div v-if="session.site.name">
    <SiteForm />
    <WordsForm />
  </div>
</template>
