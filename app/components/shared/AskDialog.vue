<script setup lang="ts">
/** The question that is open, if one is. */
const asking = useAsking()
</script>

<template>
  <VDialog
    :model-value="!!asking.open"
    role="alertdialog"
    aria-labelledby="ask-head"
    aria-describedby="ask-detail"
    @update:model-value="asking.open?.answer(false)"
  >
    <div v-if="asking.open" class="dialog">
      <h2 id="ask-head">{{ asking.open.question }}</h2>
      <p id="ask-detail">{{ asking.open.detail }}</p>
      <div class="acts">
        <VBtn v-focus variant="flat" @click="asking.open.answer(true)">{{ asking.open.yes }}</VBtn>
        <VBtn @click="asking.open.answer(false)">{{ asking.open.no }}</VBtn>
      </div>
    </div>
  </VDialog>
</template>
