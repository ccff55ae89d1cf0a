<script setup lang="ts">
import { hostListSchema, hostsFormSchema } from '~~/core/files/fetchHosts'

/** Hosts of a private network that files may be fetched from. */
const notices = useNotices()
const hosts = ref('')
const { field, submit, problem, busy, changed, reset, renew } = useForm({
  schema: hostsFormSchema,
  begin: () => ({ hosts: hosts.value }),
  send: async given => {
    take(await ask(hostListSchema, '/fetch-hosts', 'PUT', given))
    reset()
    notices.say('Saved.', { tone: 'works' })
  },
})
useKeepWritten(changed)

const take = (kept: { hosts: string[] }) => (hosts.value = kept.hosts.join('\n'))
const { problem: unread, attempt } = useAttempt()
onMounted(() =>
  attempt(async () => {
    take(await ask(hostListSchema, '/fetch-hosts'))
    renew()
  }),
)
</script>

<template>
  <VForm class="form" aria-labelledby="hosts-head" @submit.prevent="submit">
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
    <div class="acts"><VBtn type="submit" variant="outlined" :loading="busy">Save the hosts</VBtn></div>
  </VForm>
</template>

<style scoped>
.form {
  max-width: 460px;
}
</style>
