<script setup lang="ts">
import { z } from 'zod'
import { isDay } from '~~/core/timetable/setTime'
import { momentOf } from '~~/core/timetable/wallTime'
import { newPersonalLinkSchema, personalLinkSchema, type PersonalLink } from '~~/core/gate/personalLink'

/** Addresses of a file for one person or purpose: each is counted by itself, and can be taken back. */
const props = defineProps<{ fileId: string }>()
const session = useSession()
const notices = useNotices()
const links = shallowRef<PersonalLink[]>([])
const open = ref(false)
const making = ref(false)
const { problem, attempt } = useAttempt()
const listSchema = z.object({ items: z.array(personalLinkSchema) })
const load = async () => (links.value = (await ask(listSchema, `/files/${props.fileId}/links`)).items)
watch([open, () => props.fileId], () => open.value && attempt(load))

const formSchema = z.object({
  note: newPersonalLinkSchema.shape.note,
  email: newPersonalLinkSchema.shape.email,
  until: z.string().refine(day => day === '' || isDay(day), 'Give a day such as 2026-12-24, or leave it empty.'),
  most: z.string().regex(/^\d{0,6}$/, 'Give a number, or leave it empty.'),
})
const {
  field,
  fields,
  submit,
  problem: refusal,
  busy,
  reset,
  leave,
} = useForm({
  schema: formSchema,
  begin: () => ({ note: '', email: '', until: '', most: '' }),
  send: async ({ note, email, until, most }) => {
    const made = await ask(personalLinkSchema, `/files/${props.fileId}/links`, 'POST', {
      note,
      email,
      until: until ? momentOf(`${until}T23:59`, session.site.timeZone).toISOString() : null,
      most: most ? Number(most) : null,
      send: email !== '',
    })
    notices.say(email ? `A message with the link to ${email} is in the outbox.` : `The link for “${made.note}” is made: copy it.`, {
      tone: 'works',
    })
    making.value = false
    reset()
    await load()
  },
})
async function revoke({ id, note }: PersonalLink) {
  await attempt(async () => {
    await tell(`/links/${id}`, 'DELETE')
    notices.say(`The link for “${note}” gives nothing any more.`)
    await load()
  })
}
const limits = ({ until, most, taken, revoked }: PersonalLink) =>
  [
    revoked ? `taken back on ${shortDate(revoked)}` : until && `until ${shortDate(until)}`,
    most === null ? counted(taken, 'download') : `${taken} of ${counted(most, 'download')}`,
  ]
    .filter(Boolean)
    .join(', ')
</script>

<template>
  <FoldSection v-model:open="open" heading="Send this file to…">
    <p class="hint">An address for one person or purpose. It leads past every gate, and is counted by itself.</p>
    <ul v-if="links.length">
      <li v-for="link in links" :key="link.id" :class="{ revoked: link.revoked }">
        <CopyLine
          v-if="!link.revoked"
          :name="`${link.note}${link.email ? `, sent to ${link.email}` : ''}`"
          :address="session.fullAddress(link.path)"
        />
        <b v-else>{{ link.note }}</b>
        <span class="hint">{{ limits(link) }}</span>
        <VBtn v-if="!link.revoked" :aria-label="`Take back the link for ${link.note}`" @click="revoke(link)">Take back</VBtn>
      </li>
    </ul>
    <VForm v-if="making" class="form" @submit.prevent="submit" @keydown.esc.stop="leave(() => (making = false))">
      <VTextField v-focus v-bind="field('note')" label="Whom or what it is for" maxlength="200" />
      <VTextField v-bind="field('email')" label="Send it to" type="email" placeholder="left empty: you copy it" />
      <div class="pair">
        <DateField v-bind="field('until')" label="Until the end of" />
        <VTextField v-bind="field('most')" label="Downloads" inputmode="numeric" placeholder="any number" />
      </div>
      <p v-if="refusal" class="problem" role="alert">{{ refusal }}</p>
      <div class="acts">
        <VBtn type="submit" variant="outlined" :loading="busy">{{ fields.email ? 'Send it' : 'Make the link' }}</VBtn><VBtn
          @click="making = false"
          >Cancel</VBtn
        >
      </div>
    </VForm>
    <VBtn v-else variant="outlined" @click="making = true">New link</VBtn>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </FoldSection>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
}
.revoked {
  color: var(--soft);
}
.form {
  display: grid;
  gap: 8px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
</style>
