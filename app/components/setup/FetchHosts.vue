<script setup lang="ts">
import { hostListSchema, hostsFormSchema } from '~~/core/files/fetchHosts'

/** Hosts of a private network that files may be fetched from. */
const notices = useNotices()
/** undefined until they have come: what is saved takes the place of all of them */
const hosts = ref<string>()
const { field, submit, problem, busy, changed, reset } = useForm({
  schema: hostsFormSchema,
  begin: () => ({ hosts: hosts.value ?? '' }),
  send: async given => {
    await take(ask(hostListSchema, '/fetch-hosts', 'PUT', given))
    notices.say('Saved.', { tone: 'works' })
  },
})
useKeepWritten(changed)

async function take(answer: Promise<{ hosts: string[] }>) {
  hosts.value = (await answer).hosts.join('\n')
  reset()
}
const { problem: unread, attempt } = useAttempt()
onMounted(() => attempt(() => take(ask(hostListSchema, '/fetch-hosts'))))
</script>

<template>
  <VForm class="form" :disabled="hosts === undefined" aria-labelledby="hosts-head" @submit.prevent="submit">
    <h2 id="hosts-head">Fetching from the web</h2>
    <VTextarea
      v-bind="field('hosts')"
      label="Hosts of your own network, one a line"
      rows="3"
      spellcheck="false"
      placeholder="nas.local"
      aria-describedby="hosts-hint"
    />
    <p id="hosts-hint" class="hint">
      Files may be fetched from them. Public web addresses need no entry; hosts of a private network are refused unless they stand here.
    </p>
    <p v-if="problem || unread" class="problem" role="alert">{{ problem || unread }}</p>
    <div class="acts"><VBtn type="submit" variant="outlined" :loading="busy" :disabled="hosts === undefined">Save the hosts</VBtn></div>
  </VForm>
</template>

<style scoped>
.form {
  max-width: 460px;
}
</style>
