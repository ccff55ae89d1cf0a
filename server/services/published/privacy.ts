import type { Kept } from '../../../core/privacy/kept'
import type { Contacts } from '../contacts/contacts'
import type { Guard } from '../gates/guard'
import type { PageService } from '../pages/pages'
import type { SiteService } from '../site/site'

interface Needs {
  site: Pick<SiteService, 'get'>
  guard: Pick<Guard, 'standing'>
  pages: Pick<PageService, 'liveLetterboxes'>
  contacts: Pick<Contacts, 'rules'>
}

/** Says what the site keeps of its visitors, as it is set up now. */
export const createKeptOf =
  ({ site, guard, pages, contacts }: Needs) =>
  async (): Promise<Kept> => {
    const { countries, keepAddresses } = await site.get()
    const gates = [...(await guard.standing()).gates.values()]
    return {
      countries,
      addressDays: keepAddresses,
      gates: gates.length > 0,
      people: gates.some(({ rule: { kind } }) => kind === 'email' || kind === 'people'),
      letterbox: (await pages.liveLetterboxes()).size > 0,
      peopleDays: (await contacts.rules()).keepDays,
    }
  }
