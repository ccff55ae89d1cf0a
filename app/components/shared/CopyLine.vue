<script setup lang="ts">
/** An address with a button that copies it. */
const props = defineProps<{ name: string; address: string }>()
const copied = ref(false)

async function copy() {
  if (!(await copyText(props.address, `The address is ${props.address}`))) return
  copied.value = true
  setTimeout(() => (copied.value = false), 2000)
}
</script>

<template>
  <div class="copy-line">
    <span class="name">{{ name }}</span>
    <code>{{ address }}</code>
    <VBtn :aria-label="`${copied ? 'Copied' : 'Copy'}: ${name}`" @click="copy">{{ copied ? 'Copied' : 'Copy' }}</VBtn>
  </div>
</template>

<style scoped>
.copy-line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  gap: 0 8px;
  padding: 3px 0 6px;
  border-bottom: 1px solid var(--line);
}
.name {
  color: var(--soft);
  font-size: 12.5px;
}
code {
  grid-row: 2;
  grid-column: 1 / -1;
  overflow-wrap: anywhere;
  user-select: text;
}
</style>
