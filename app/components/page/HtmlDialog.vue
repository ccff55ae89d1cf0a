<script setup lang="ts">
/** The HTML of the draft, to copy: complete, with its style, and with addresses that lead to the public site from anywhere. */
const emit = defineEmits<{ close: [] }>()
const page = usePage()
const session = useSession()
const html = ref('')
const copied = ref(false)
const { problem, attempt } = useAttempt()

onMounted(() =>
  attempt(async () => {
    await page.save()
    const text = await $fetch<string>(`/api/pages/${page.current!.id}/preview`, { responseType: 'text' })
    html.value = text.replace('<head>', `<head>\n<base href="${session.fullAddress('/')}">`)
  }),
)

async function copy() {
  copied.value = await copyText(html.value, 'Choose the text by Ctrl+A, and copy it by Ctrl+C.')
}
</script>

<template>
  <VDialog :model-value="true" max-width="860" aria-labelledby="html-head" @update:model-value="emit('close')">
    <div class="dialog">
      <h2 id="html-head">The HTML of “{{ page.current?.title }}”</h2>
      <p class="hint">As it is drafted now, without any script. You never need it here: it is for a program or person elsewhere.</p>
      <VTextarea readonly rows="18" :model-value="html" aria-label="HTML of the page" spellcheck="false" />
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="acts">
        <VBtn v-focus variant="flat" :disabled="!html" @click="copy">{{ copied ? 'Copied' : 'Copy' }}</VBtn>
        <VBtn @click="emit('close')">Close</VBtn>
      </div>
    </div>
  </VDialog>
</template>

<style scoped>
textarea {
  width: 100%;
  box-sizing: border-box;
  resize: vertical;
  font:
    12.5px/1.5 'IBM Plex Mono',
    monospace;
  white-space: pre;
  overflow: auto;
  background: #f5f8f7;
}
</style>
