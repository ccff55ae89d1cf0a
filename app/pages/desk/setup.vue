<script setup lang="ts">
import type { StorageUse } from '~~/core/trust/trustReports'
useHead({ title: 'Setup' })
const session = useSession()
const notices = useNotices()
const form = reactive({ name: '', address: '', timeZone: '' })
const ZONES = Intl.supportedValuesOf('timeZone')
const error = ref('')

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

watch(
  () => session.site,
  site => Object.assign(form, site),
  { immediate: true },
)

async function save() {
  error.value = ''
  try {
    await session.saveSite({ ...form })
    notices.say('Saved. Live pages show it at once.', { tone: 'works' })
  } catch (caught) {
    error.value = wordsOf(caught)
  }
}
</script>

<template>
  <div class="setup">
    <header class="board-head">
      <NuxtLink to="/desk" class="back">Pages</NuxtLink>
      <h1>Setup</h1>
      <NuxtLink to="/desk/account" class="plain">Account</NuxtLink><NuxtLink to="/desk/journal" class="plain">Who did what</NuxtLink>
    </header>
    <!-- What is written before the site is known would be lost when that arrives. -->
    <form v-if="session.site.name" class="form" @submit.prevent="save">
      <label class="field"><span>Name of the site</span><input v-model="form.name" type="text" maxlength="120" required /></label>
      <label class="field"
        ><span>Public address</span
        ><input v-model="form.address" type="text" inputmode="url" placeholder="https://www.example.com" aria-describedby="address-hint"
      /></label>
      <p id="address-hint" class="hint">
        Only full addresses that you copy contain it. Pages and buttons go on working when it changes, and addresses that name the old one
        are still known. <NuxtLink to="/desk/old-addresses">Old addresses of the site</NuxtLink>
      </p>
      <label class="field"
        ><span>Time zone</span
        ><input v-model="form.timeZone" type="text" list="zones" required aria-describedby="zone-hint" spellcheck="false"
      /></label>
      <datalist id="zones"><option v-for="zone in ZONES" :key="zone" :value="zone" /></datalist>
      <p id="zone-hint" class="hint">Set times are meant in it: a price list that goes live at 8 does so by its clocks.</p>
      <SiteIcon />
      <p v-if="error" class="problem" role="alert">{{ error }}</p>
      <div class="acts"><button type="submit" class="main">Save</button></div>
    </form>
    <form class="form" @submit.prevent="saveHosts">
      <h2>Fetching from the web</h2>
      <label class="field"
        ><span>Hosts in your own network that files may be fetched from, one a line</span
        ><textarea v-model="hosts" rows="3" spellcheck="false" placeholder="nas.local" aria-describedby="hosts-hint" />
      </label>
      <p id="hosts-hint" class="hint">Public web addresses need no entry. Hosts in a private network are refused unless they stand here.</p>
      <p v-if="hostError" class="problem" role="alert">{{ hostError }}</p>
      <div class="acts"><button type="submit" class="plain strong">Save the hosts</button></div>
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
