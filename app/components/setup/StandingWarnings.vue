<script setup lang="ts">
/** What the owner should know of how this Trough stands. */
const session = useSession()
</script>

<template>
  <div v-if="session.warnings.unnamedFront !== null || session.warnings.diskFull || session.warnings.failedMail" class="warnings">
    <VAlert v-if="session.warnings.diskFull" type="warning" role="status">
      The disk with the data folder is full: visitors get everything, and nothing can be changed. Free some space there, or
      <NuxtLink to="/desk?bin">delete files of the bin for good</NuxtLink>.
    </VAlert>
    <VAlert v-if="session.warnings.failedMail" type="warning" role="status">
      {{ counted(session.warnings.failedMail, 'message') }} of this week could not be sent. <NuxtLink to="/desk/outbox">See why</NuxtLink>,
      and send what still matters once more.
    </VAlert>
    <VAlert v-if="session.warnings.unnamedFront !== null" type="warning" role="status">
      Visitors come through another server at <code>{{ session.warnings.unnamedFront }}</code> that is not named: all of them count as one.
      Start Trough with <code>TROUGH_PROXIES={{ session.warnings.unnamedFront }}</code
      >.
    </VAlert>
  </div>
</template>

<style scoped>
.warnings {
  display: grid;
  gap: 1px;
}
.warnings :deep(.v-alert) {
  background: #f8efd6;
  border-left: 5px solid var(--straw);
  padding: 7px 14px;
}
.warnings :deep(.v-alert__prepend) {
  display: none;
}
</style>
