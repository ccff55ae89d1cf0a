<script setup lang="ts">
import { siteFormSchema } from '~~/core/site/siteForm'
import type { StorageUse } from '~~/core/trust/trustReports'
useHead({ title: 'Setup' })
const session = useSession()
const notices = useNotices()
const ZONES = Intl.supportedValuesOf('timeZone')

const storage = ref<StorageUse>()
async function loadStorage() {
  storage.value = await api<StorageUse>('/storage')
}
onMounted(loadStorage)

const hosts = ref('')
onMounted(async () => {
  hosts.value = (await api<{ hosts: string[] }>('/fetch-hosts')).hosts.join('\n')
})
const hostError = ref('')
async function saveHosts() {
  hostError.value = ''
  try {
    const answer = await api<{ hosts: string[] }>('/fetch-hosts', 'PUT', { hosts: hosts.value.split(/\s+/).filter(Boolean) })
    hosts.value = answer.hosts.join('\n')
    notices.say('Saved.', { tone: 'works' })
  } catch (caught) {
    hostError.value = wordsOf(caught)
  }
}

const { field, submit, problem, busy, changed, reset } = useForm({
  schema: siteFormSchema,
  begin: () => session.site,
  send: async site => {
    await session.saveSite(site)
    notices.say('Saved. Live pages show it at once.', { tone: 'works' })
  },
})
watch(() => session.site, reset)
useKeepWritten(changed)
</script>

<template>
  <div class="setup">
    <header class="board-head">
      <NuxtLink to="/desk" class="back">Pages</NuxtLink>
      <h1>Setup</h1>
      <NuxtLink to="/desk/account" class="plain">Account</NuxtLink><NuxtLink to="/desk/journal" class="plain">Who did what</NuxtLink>
    </header>
    <!-- What is written before the site is known would be lost when that arrives. -->
    <VForm v-if="session.site.name" class="form" @submit.prevent="submit">
      <VTextField v-bind="field('name')" label="Name of the site" maxlength="120" />
      <VTextField
        v-bind="field('address')"
        label="Public address"
        inputmode="url"
        placeholder="https://www.example.com"
        aria-describedby="address-hint"
      />
      <p id="address-hint" class="hint">
        Only full addresses that you copy contain it. Pages and buttons go on working when it changes, and addresses that name the old one
        are still known. <NuxtLink to="/desk/old-addresses">Old addresses of the site</NuxtLink>
      </p>
      <VAutocomplete v-bind="field('timeZone')" label="Time zone" :items="ZONES" aria-describedby="zone-hint" />
      <p id="zone-hint" class="hint">Set times are meant in it: a price list that goes live at 8 does so by its clocks.</p>
      <SiteIcon />
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="acts"><VBtn type="submit" variant="flat" :loading="busy">Save</VBtn></div>
    </VForm>
    <form class="form" @submit.prevent="saveHosts">
      <h2>Fetching from the web</h2>
      <VTextarea
        v-model="hosts"
        label="Hosts of your own network, one a line"
        rows="3"
        spellcheck="false"
        placeholder="nas.local"
        aria-describedby="hosts-hint"
      />
      <p id="hosts-hint" class="hint">
        Files may be fetched from them. Public web addresses need no entry; hosts of a private network are refused unless they stand here.
      </p>
      <p v-if="hostError" class="problem" role="alert">{{ hostError }}</p>
      <div class="acts"><VBtn type="submit" variant="outlined">Save the hosts</VBtn></div>
    </form>
    <div class="wide">
      <StorageSection v-if="storage" :use="storage" />
      <CleaningForm @cleaned="loadStorage" />
      <VerifySection />
      <BagSection />
    </div>
  </div>
</template>

<style scoped>
.setup {
  flex: 1;
  overflow: auto;
}
.board-head {
  position: sticky;
  top: 0;
  z-index: 2;
}
.form {
  max-width: 460px;
  padding: 18px;
}
.wide {
  display: grid;
  gap: 30px;
  max-width: 720px;
  padding: 18px 18px 40px;
}
</style>
