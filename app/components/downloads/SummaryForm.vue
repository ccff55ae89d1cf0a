<script setup lang="ts">
import { summaryFormSchema, type SummaryForm } from '~~/core/tally/summary'

/** Whether, how often and to whom it is told by message what was taken. */
const notices = useNotices()
const session = useSession()
const EVERY = [
  { value: 'never', title: 'Never' },
  { value: 'week', title: 'Each Monday, of the week before' },
  { value: 'month', title: 'On the first of a month, of the month before' },
]
/** undefined until it has come: nothing is written before that */
const kept = shallowRef<SummaryForm>()
const { attempt, problem: trouble } = useAttempt()
const { field, submit, problem, busy, changed, reset } = useForm({
  schema: summaryFormSchema,
  begin: (): SummaryForm => ({ every: kept.value?.every ?? 'never', to: kept.value?.to || session.email }),
  send: async form => {
    kept.value = await ask(summaryFormSchema, '/downloads/summary', 'PUT', form)
    reset()
    notices.say(form.every === 'never' ? 'Saved. Nothing is sent.' : 'Saved. The first one comes when this time has ended.', {
      tone: 'works',
    })
  },
})
onMounted(() =>
  attempt(async () => {
    kept.value = await ask(summaryFormSchema, '/downloads/summary')
    reset()
  }),
)
const tellNow = () =>
  attempt(async () => {
    await tell('/downloads/summary/now', 'POST')
    notices.say('Written. It stands in the outbox.', { tone: 'works' })
  })
</script>

<template>
  <VForm class="form" :disabled="!kept" aria-label="Summary by message" @submit.prevent="submit">
    <p class="hint">
      How much was taken, what rose and fell, and what did not work. It goes through the
      <NuxtLink to="/desk/outbox">outbox</NuxtLink>, at seven in the morning.
    </p>
    <VSelect v-bind="field('every')" label="How often" :items="EVERY" />
    <VTextField v-bind="field('to')" label="To" type="email" />
    <p v-if="problem || trouble" class="problem" role="alert">{{ problem || trouble }}</p>
    <div class="acts">
      <VBtn type="submit" variant="flat" :loading="busy" :disabled="!changed">Save</VBtn>
      <VBtn v-if="kept && kept.every !== 'never'" :disabled="changed" @click="tellNow">Send one of the last {{ kept.every }} now</VBtn>
    </div>
  </VForm>
</template>

<style scoped>
.form {
  max-width: 460px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
