import { fold } from '~~/core/find/fold'

/** Where something of the site or the desk is set or done. */
export interface SettingPlace {
  words: string
  /** what else somebody might call it */ also?: string
  to: string
}

const PLACES: SettingPlace[] = [
  {
    words: 'Setup: site name, address, clock and language',
    also: 'domain time zone icon favicon settings words translate locale',
    to: '/desk/setup',
  },
  { words: 'Setup: hosts that files are fetched from', also: 'network private address files web', to: '/desk/setup/files' },
  {
    words: 'Setup: password and sign-in',
    also: 'account people change second factor codes app sessions devices sign out',
    to: '/desk/setup/people',
  },
  {
    words: 'Setup: storage, cleaning and verifying',
    also: 'disk space free backup restore bin editions damaged bytes',
    to: '/desk/setup/storage',
  },
  { words: 'Setup: the library as a bag', also: 'export import download everything move backup', to: '/desk/setup/moving' },
  { words: 'Setup: other services that are told', also: 'webhook hooks api integration automation newsletter', to: '/desk/setup/services' },
  { words: 'Setup: who did what', also: 'log journal history sign-ins changes', to: '/desk/setup/log' },
  { words: 'Looks: buttons, colours and type', also: 'style design fonts typeface palette', to: '/desk/looks' },
  { words: 'Signposts: names for what is current', also: 'links redirect', to: '/desk/signposts' },
  {
    words: 'Gates: files and pages that are not for everyone',
    also: 'password protect lock private access e-mail terms',
    to: '/desk/gates',
  },
  { words: 'Guests: who gets through gates by name', also: 'groups people clients customers access', to: '/desk/guests' },
  { words: 'Contacts: who left an e-mail address', also: 'people newsletter addresses consent export csv', to: '/desk/contacts' },
  { words: 'Letterbox: what visitors handed in', also: 'received uploads forms contracts sent back returns inbox', to: '/desk/letterbox' },
  { words: 'People: helpers and what they may do', also: 'invite rights users team staff roles access', to: '/desk/people' },
  { words: 'Outbox: messages and how they are sent', also: 'mail e-mail smtp', to: '/desk/outbox' },
  { words: 'Old addresses: what the site had before', also: 'redirects moving links sitemap', to: '/desk/old-addresses' },
  { words: 'Checks: what visitors meet on the live pages', also: 'broken links errors findings', to: '/desk/checks' },
  { words: 'All pages', to: '/desk' },
]

/** The places that have every word of a question in their name, or in what else they might be called. */
export function settingPlaces(question: string): SettingPlace[] {
  const asked = fold(question).split(/\s+/).filter(Boolean)
  if (!asked.length) return []
  return PLACES.filter(({ words, also = '' }) => asked.every(word => fold(`${words} ${also}`).includes(word)))
}
