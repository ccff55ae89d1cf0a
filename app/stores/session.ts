import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { Cleaning } from '~~/core/trust/item'
import { api } from '~/composables/api'

interface Site { name: string, address: string, /** of the IANA database */ timeZone: string }

/** Who is signed in, and to which site. */
export const useSession = defineStore('session', () => {
  const email = ref('')
  const site = ref<Site>({ name: '', address: '', timeZone: 'UTC' })

  /** days a deleted file stays in the bin */
  const binDays = ref(30)

  async function load() {
    const { account } = await api<{ account: { email: string } | null }>('/session')
    email.value = account?.email ?? ''
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

  return { email, site, binDays, load, saveSite, signOut, fullAddress }
})
