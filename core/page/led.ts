import { z } from 'zod'
import { targetSchema } from './schema'

/** What an address leads to, and what that is called. */
export const ledSchema = z.object({ target: targetSchema, title: z.string() })
export type Led = z.infer<typeof ledSchema>
