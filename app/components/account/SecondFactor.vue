<script setup lang="ts">
import { z } from 'zod'
import { confirmPasswordSchema, secondFactorSchema } from '~~/core/account/accountForms'

const proposedSchema = z.object({ secret: z.string(), /** SVG */ picture: z.string() })
const recoverySchema = z.object({ recoveryCodes: z.array(z.string()) })

/** One-time codes of an app, asked for beside the password. */
const rights = useRights()
const session = useSession()
const notices = useNotices()
const proposed = ref<z.infer<typeof proposedSchema>>()
const recovery = ref<string[]>()
const ending = ref(false)
const picture = computed(() => proposed.value && `data:image/svg+xml,${encodeURIComponent(proposed.value.picture)}`)

const { problem, attempt } = useAttempt()
const begin = () =>
  attempt(async () => {
    proposed.value = await ask(proposedSchema, '/account/second-factor', 'POST')
    confirming.reset()
  })

const confirming = useForm({
  schema: secondFactorSchema,
  begin: () => ({ secret: proposed.value?.secret ?? '', code: '', password: '' }),
  send: async given => {
    const { recoveryCodes } = await ask(recoverySchema, '/account/second-factor', 'PUT', given)
    recovery.value = recoveryCodes
    proposed.value = undefined
    await rights.load()
  },
})
const leaving = useForm({
  schema: confirmPasswordSchema,
  begin: () => ({ password: '' }),
  send: async given => {
    await tell('/account/second-factor/end', 'POST', given)
    ending.value = false
    await rights.load()
    notices.say('No code is asked for any more.')
  },
})
function askToEnd() {
  leaving.reset()
  ending.value = true
}

async function copy() {
  if (await copyText(recovery.value!.join('\n'), 'Write the codes down.')) notices.say('Copied.')
}
</script>

<template>
  <section aria-labelledby="codes-head">
    <h2 id="codes-head">Codes of an app</h2>
    <template v-if="recovery">
      <p>
        From now on a code is asked for, too. <b>Keep these on paper</b>: each lets you in once when the app is lost. They are not shown
        again.
      </p>
      <ul class="codes">
        <li v-for="one in recovery" :key="one">
          <code>{{ one }}</code>
        </li>
      </ul>
      <div class="acts">
        <VBtn variant="outlined" @click="copy">Copy them</VBtn><VBtn @click="recovery = undefined">I have kept them</VBtn>
      </div>
    </template>
    <VForm v-else-if="proposed" class="form" @submit.prevent="confirming.submit">
      <p>Read this with an app that shows one-time codes (any that knows TOTP), then type the code it shows.</p>
      <div class="picture">
        <img :src="picture" width="180" height="180" alt="The secret as a picture for the app" />
        <p class="hint">
          Or type it into the app:<br /><code>{{ proposed.secret.replace(/(.{4})/g, '$1 ') }}</code>
        </p>
      </div>
      <VTextField v-bind="confirming.field('code')" label="The code it shows now" inputmode="numeric" autocomplete="one-time-code" />
      <VTextField v-bind="confirming.field('password')" label="Your password" type="password" autocomplete="current-password" />
      <p v-if="confirming.problem.value" class="problem" role="alert">{{ confirming.problem.value }}</p>
      <div class="acts">
        <VBtn variant="outlined" type="submit" :loading="confirming.busy.value">Ask for codes from now on</VBtn
        ><VBtn @click="proposed = undefined">Leave it</VBtn>
      </div>
    </VForm>
    <template v-else-if="session.secondFactor">
      <p>A code is asked for beside the password.</p>
      <VForm v-if="ending" class="form" @submit.prevent="leaving.submit" @keydown.esc="ending = false">
        <VTextField v-focus v-bind="leaving.field('password')" label="Your password" type="password" autocomplete="current-password" />
        <p v-if="leaving.problem.value" class="problem" role="alert">{{ leaving.problem.value }}</p>
        <div class="acts">
          <VBtn variant="outlined" type="submit" :loading="leaving.busy.value">End it</VBtn><VBtn @click="ending = false">Leave it</VBtn>
        </div>
      </VForm>
      <div v-else class="acts"><VBtn variant="outlined" @click="askToEnd">No longer ask for codes…</VBtn></div>
    </template>
    <template v-else>
      <p>Whoever has your password still does not get in without the phone you have with you.</p>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="acts"><VBtn variant="outlined" @click="begin">Ask for codes, too…</VBtn></div>
    </template>
  </section>
</template>

<style scoped>
section,
.form {
  display: grid;
  gap: 10px;
  max-width: 460px;
}
h2 {
  margin: 0;
}
.picture {
  display: flex;
  gap: 14px;
  align-items: center;
  flex-wrap: wrap;
}
.picture img {
  border: 1px solid var(--line);
  background: #fff;
}
.codes {
  list-style: none;
  margin: 0;
  padding: 10px 12px;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(120px, 1fr));
  gap: 4px 16px;
  border: 1px solid var(--line);
  background: #fff;
}
</style>
