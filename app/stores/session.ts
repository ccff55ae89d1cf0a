import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { z } from 'zod'
import { languageSchema } from '~~/core/language/languages'
import { COUNTS_TOLD } from '~~/core/language/rounded'
import { ownWordsSchema } from '~~/core/language/words/ownWords'
import { cleaningSchema } from '~~/core/trust/trustReports'
import { ask, tell } from '~/composables/api'
import { useNotices } from './notices'
import { useRights } from './rights'

const siteSchema = z.object({
  name: z.string(),
  address: z.string(),
  /** of the IANA database */ timeZone: z.string(),
  language: languageSchema,
  /** visitors may look at files before they take them */ see: z.boolean(),
  /** how exactly pages tell how often something was taken */ counts: z.enum(COUNTS_TOLD),
  /** it is kept from which countries files are taken */ countries: z.boolean(),
  /** days for which addresses of networks are kept with downloads */ keepAddresses: z.number(),
  /** what it says to visitors in words of its owner */ words: ownWordsSchema,
})
type Site = z.infer<typeof siteSchema>
/** What the owner should know of how this Trough stands. */
const warningsSchema = z.object({
  unnamedFront: z.string().nullable(),
  diskFull: z.boolean(),
  /** messages of the last week that could not be sent */ failedMail: z.number(),
})

/** Who is signed in, and to which site. */
export const useSession = defineStore('session', () => {
  const rights = useRights()
  const router = useRouter()
  const notices = useNotices()
  const email = computed(() => rights.account?.email ?? '')
  const site = ref<Site>({
    name: '',
    address: '',
    timeZone: 'UTC',
    language: 'en',
    see: true,
    counts: 'exact',
    countries: true,
    keepAddresses: 0,
    words: {},
  })

  /** a code is asked for beside the password */
  const secondFactor = computed(() => rights.account?.secondFactor ?? false)
  const warnings = ref<z.infer<typeof warningsSchema>>({ unnamedFront: null, diskFull: false, failedMail: 0 })

  async function loadWarnings() {
    warnings.value = await ask(warningsSchema, '/warnings')
  }

  /** days a deleted file stays in the bin */
  const binDays = ref(30)

  async function load() {
    await rights.load()
    await loadWarnings()
    site.value = await ask(siteSchema, '/site')
    if (rights.may('site')) binDays.value = (await ask(cleaningSchema, '/cleaning')).binDays
  }

  async function saveSite(changed: Partial<Site>) {
    site.value = await ask(siteSchema, '/site', 'PUT', changed)
  }

  /** Ends the session once the board lets go: what is not saved there is saved, or asked about, while it still may be. */
  async function signOut() {
    const off = router.beforeResolve(async () => {
      await tell('/session', 'DELETE')
      // Loaded anew: what the desk holds in memory is nobody's now.
      window.location.assign('/desk/sign-in')
      return false
    })
    try {
      await router.push('/desk/sign-in')
    } catch (error) {
      off()
      // The board has let go already.
      await router.push('/desk')
      notices.refused(error)
    } finally {
      off()
    }
  }

  /** A root-relative address with the site's own in front; this desk's until the site has one. */
  const fullAddress = (path: string) => `${site.value.address || window.location.origin}${path}`

  return { email, secondFactor, warnings, site, binDays, loadWarnings, load, saveSite, signOut, fullAddress }
})
