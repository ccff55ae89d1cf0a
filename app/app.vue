<script setup lang="ts">
useHead({ titleTemplate: title => (title && title !== 'Trough' ? `${title} · Trough` : 'Trough') })
</script>

<template>
  <VApp>
    <NuxtLayout>
      <NuxtPage />
    </NuxtLayout>
  </VApp>
</template>
