import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { Account } from '~~/core/account/accountForms'
import type { Cleaning } from '~~/core/trust/trustReports'
import { api } from '~/composables/api'

interface Site {
  name: string
  address: string
  /** of the IANA database */ timeZone: string
}

/** Who is signed in, and to which site. */
export const useSession = defineStore('session', () => {
  const email = ref('')
  const site = ref<Site>({ name: '', address: '', timeZone: 'UTC' })

  /** a code is asked for beside the password */
  const secondFactor = ref(false)
  /** what the owner should know of how this Trough stands */
  const warnings = ref<{ unnamedFront: string | null; diskFull: boolean }>({ unnamedFront: null, diskFull: false })

  async function loadWarnings() {
    warnings.value = await api('/warnings')
  }

  /** days a deleted file stays in the bin */
  const binDays = ref(30)

  async function load() {
    const { account } = await api<{ account: Account | null }>('/session')
    email.value = account?.email ?? ''
    secondFactor.value = account?.secondFactor ?? false
    await loadWarnings()
    site.value = await api<Site>('/site')
    binDays.value = (await api<Cleaning>('/cleaning')).binDays
  }

  async function saveSite(changed: Site) {
    site.value = await api<Site>('/site', 'PUT', changed)
  }

  async function signOut() {
    await api('/session', 'DELETE')
    window.location.assign('/desk/sign-in')
  }

  /** A root-relative address with the site's own in front; this desk's until the site has one. */
  const fullAddress = (path: string) => `${site.value.address || window.location.origin}${path}`

  return { email, secondFactor, warnings, site, binDays, loadWarnings, load, saveSite, signOut, fullAddress }
})
