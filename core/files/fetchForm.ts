import { z } from 'zod'
import { placeSchema } from '../folders/folderItem'

/** What is fetched from the web: an address, with https before it where no scheme is given. */
export const fetchFormSchema = z.object({
  address: z
    .string()
    .trim()
    .max(4000)
    .transform(text => (/^[a-z][a-z0-9+.-]*:/i.test(text) ? text : `https://${text}`))
    .refine(
      text => URL.canParse(text) && /^https?:$/.test(new URL(text).protocol),
      'Give a web address, such as https://www.example.com/list.pdf.',
    ),
})
export const fetchSchema = fetchFormSchema.extend({ folder: placeSchema.default(null) })
export type Fetch = z.infer<typeof fetchSchema>
