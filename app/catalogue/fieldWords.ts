import {
  mdiAt,
  mdiCalendarOutline,
  mdiCashMultiple,
  mdiCheckboxMarkedOutline,
  mdiFileMultipleOutline,
  mdiFileOutline,
  mdiFormatListChecks,
  mdiImageMultipleOutline,
  mdiImageOutline,
  mdiLinkVariant,
  mdiMapMarkerOutline,
  mdiNumeric,
  mdiPhoneOutline,
  mdiRadioboxMarked,
  mdiText,
  mdiTextLong,
} from '@mdi/js'
import type { FieldKind } from '~~/core/catalogue/field'

/** What each kind of field is called, and what it is for. */
export const KIND_WORDS: Record<FieldKind, { title: string; hint: string; icon: string }> = {
  text: { title: 'Line of text', hint: 'A name, a number that is no amount', icon: mdiText },
  longText: { title: 'Long text', hint: 'Paragraphs, lists, bold words, links', icon: mdiTextLong },
  number: { title: 'Number', hint: 'With its unit, such as kg', icon: mdiNumeric },
  money: { title: 'Price', hint: 'An amount in a currency', icon: mdiCashMultiple },
  date: { title: 'Day', hint: 'Of a class, an event, an issue', icon: mdiCalendarOutline },
  yesNo: { title: 'Yes or no', hint: 'In stock, food safe', icon: mdiCheckboxMarkedOutline },
  choice: { title: 'One of several', hint: 'Visitors can narrow a list down by it', icon: mdiRadioboxMarked },
  choices: { title: 'Some of several', hint: 'Several can hold at once', icon: mdiFormatListChecks },
  picture: { title: 'Picture', hint: 'One, of the library', icon: mdiImageOutline },
  pictures: { title: 'Pictures', hint: 'Several: a gallery', icon: mdiImageMultipleOutline },
  file: { title: 'File', hint: 'A data sheet, a manual: each entry has its own', icon: mdiFileOutline },
  files: { title: 'Files', hint: 'Several: a shelf', icon: mdiFileMultipleOutline },
  link: { title: 'Web address', hint: 'Leads elsewhere', icon: mdiLinkVariant },
  email: { title: 'E-mail address', hint: 'Whom to write to', icon: mdiAt },
  phone: { title: 'Phone number', hint: 'Whom to call', icon: mdiPhoneOutline },
  place: { title: 'Place', hint: 'Where it is', icon: mdiMapMarkerOutline },
}

export const KIND_ITEMS = Object.entries(KIND_WORDS).map(([value, { title, hint }]) => ({
  value: value as FieldKind,
  title,
  subtitle: hint,
}))
