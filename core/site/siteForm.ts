import { z } from 'zod'
import { languageSchema } from '../language/languages'
import { COUNTS_TOLD } from '../language/rounded'
import { timeZoneSchema } from '../timetable/timeZone'

/** Days for which addresses of visitors' networks may be kept. */
export const MOST_ADDRESS_DAYS = 90

const isWebAddress = (text: string) => URL.canParse(text) && /^https?:$/.test(new URL(text).protocol)

/** What an owner says of the whole site. */
export const siteFormSchema = z.object({
  name: z.string().trim().min(1, 'Give the site a name.').max(120, 'Keep the name to 120 characters.'),
  /** scheme and host of the public site, without a slash at the end; empty until known */
  address: z
    .string()
    .trim()
    .refine(text => text === '' || isWebAddress(text), { error: 'Give the whole address, such as https://www.example.com.', abort: true })
    .refine(text => text === '' || new URL(text).pathname === '/', 'Give the address without a path.')
    .transform(text => text && new URL(text).origin),
  /** in which set times are meant */
  timeZone: timeZoneSchema,
  /** in which it speaks to visitors */
  language: languageSchema,
  /** visitors may look at files before they take them, where nothing else is said of a file or folder */
  see: z.boolean(),
  /** how exactly pages tell how often something was taken */
  counts: z.enum(COUNTS_TOLD),
  /** it is kept from which countries files are taken */
  countries: z.boolean(),
  /** days for which addresses of networks are kept with downloads; 0 for not at all */
  keepAddresses: z.coerce
    .number('Give a number of days.')
    .int('Give whole days.')
    .min(0)
    .max(MOST_ADDRESS_DAYS, `Keep addresses for at most ${MOST_ADDRESS_DAYS} days.`),
})
export type SiteForm = z.infer<typeof siteFormSchema>
