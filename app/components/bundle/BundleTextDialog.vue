<script setup lang="ts">
/** A text that goes into a bundle: a read-me, a licence. */
defineProps<{ name: string }>()
const body = defineModel<string>({ required: true })
const emit = defineEmits<{ save: []; close: [] }>()
</script>

<template>
  <VDialog :model-value="true" max-width="620" aria-labelledby="bundle-text-head" @update:model-value="emit('close')">
    <VForm class="dialog" @submit.prevent="emit('save')">
      <h2 id="bundle-text-head">{{ name }}</h2>
      <VTextarea v-model="body" v-focus rows="14" maxlength="100000" :aria-label="`Text of ${name}`" />
      <div class="acts"><VBtn type="submit" variant="flat">Put it in</VBtn><VBtn @click="emit('close')">Cancel</VBtn></div>
    </VForm>
  </VDialog>
</template>

<style scoped>
textarea {
  width: 100%;
  box-sizing: border-box;
}
</style>
