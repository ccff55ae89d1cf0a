import { z } from 'zod'

/** Hosts of a private network that files may be fetched from. */
export const hostsSchema = z.object({
  hosts: z
    .array(
      z
        .string()
        .trim()
        .toLowerCase()
        .regex(/^[a-z0-9.:[\]-]+$/, 'Give each host alone, such as files.example or 192.168.1.5.')
        .max(253),
    )
    .max(100, 'Keep the list to 100 hosts.')
    .transform(hosts => [...new Set(hosts)]),
})

/** The same as the API gives them. */
export const hostListSchema = z.object({ hosts: z.array(z.string()) })

/** The same as it is written in a form: one a line. */
export const hostsFormSchema = z.object({
  hosts: z
    .string()
    .transform(text => text.split(/\s+/).filter(Boolean))
    .pipe(hostsSchema.shape.hosts),
})
