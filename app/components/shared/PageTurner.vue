<script setup lang="ts">
/** Turns the pages of a list that comes in parts; where all of it is seen there is nothing to turn. */
defineProps<{ total: number; perPage: number }>()
const page = defineModel<number>({ required: true })
const emit = defineEmits<{ turn: [] }>()
</script>

<template>
  <VPagination
    v-if="total > perPage"
    v-model="page"
    :length="Math.ceil(total / perPage)"
    total-visible="5"
    density="compact"
    @update:model-value="emit('turn')"
  />
</template>
