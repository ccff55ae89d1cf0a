<script setup lang="ts">
import { storageUseSchema, type StorageUse } from '~~/core/trust/trustReports'

useHead({ title: 'Setup: storage and backup' })
const storage = ref<StorageUse>()
const { attempt } = useSelection()
const load = () => attempt(async () => (storage.value = await ask(storageUseSchema, '/storage')))
onMounted(load)
</script>

<template>
  <div>
    <StorageSection v-if="storage" :use="storage" />
    <CleaningForm @cleaned="load" />
    <VerifySection />
  </div>
</template>
