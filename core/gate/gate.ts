import { z } from 'zod'
import { fieldsSchema } from './fields'

/** What a gate asks of who wants through. */
export const GATE_KINDS = ['password', 'email', 'people', 'terms'] as const
export type GateKind = (typeof GATE_KINDS)[number]

/** The gate that everyone passes: it is said of what shall be open below something that is not. */
export const OPEN_GATE = 'open'

/** The gate that nobody passes: what stands behind it is seen at the desk alone, and nobody else learns that it is there. */
export const CLOSED_GATE = 'closed'

/** What is said of a thing that stands behind no gate of its own. */
export const isOpenGate = (gate: string | null): boolean => gate === null || gate === OPEN_GATE

/** Whether a gate is always there, and nobody's to change. */
export const isBuiltIn = (id: string): boolean => id === OPEN_GATE || id === CLOSED_GATE

const longText = (most: number) =>
  z
    .string()
    .trim()
    .max(most, `Keep it to ${most.toLocaleString('en')} characters.`)
const count = z.number().int().min(1, 'Leave it empty, or give a number from 1.').max(1_000_000).nullable()
const moment = z.iso.datetime({ offset: true }).nullable()

/** What visitors read at a gate; empty where Trough's own words are good enough. */
export const gateWordsSchema = z.object({
  /** above the form */
  before: longText(2000),
  /** where what they gave was not right */
  refused: longText(500),
  early: longText(500),
  late: longText(500),
  usedUp: longText(500),
})
export type GateWords = z.infer<typeof gateWordsSchema>

const EMPTY_WORDS: GateWords = { before: '', refused: '', early: '', late: '', usedUp: '' }

/** What has to be accepted: a text, or a file of the library, as it is then. */
export const termsSchema = z
  .object({ text: longText(20_000), file: z.string().max(40).nullable() })
  .refine(({ text, file }) => text !== '' || file !== null, 'Write the terms, or choose a file that holds them.')
export type Terms = z.infer<typeof termsSchema>

/** Longest a pass holds, in hours: a year. */
const LONGEST_PASS = 24 * 366

/** How a gate works, whatever it is called. */
export const gateRuleSchema = z
  .object({
    kind: z.enum(GATE_KINDS),
    terms: termsSchema.nullable().default(null),
    /** guests and groups of them that get through by name */
    guests: z.array(z.string().max(40)).max(10_000, 'Put them into a group, and let that through.').default([]),
    groups: z.array(z.string().max(40)).max(500).default([]),
    /** asked for beside the e-mail address */
    fields: fieldsSchema.default([]),
    /** what has to be ticked where an e-mail address is left; empty where nothing has */
    consent: longText(2000).default(''),
    /** the address is confirmed by a link in a message before the gate opens (double opt-in) */
    confirm: z.boolean().default(false),
    /** a live page where visitors are thanked, with a button on it that gives what they came for */
    thanks: z.string().max(40).nullable().default(null),
    /** ISO 8601 */
    from: moment.default(null),
    until: moment.default(null),
    /** downloads in all, for each pass, and a day */
    most: count.default(null),
    mostEach: count.default(null),
    mostADay: count.default(null),
    /** how long a pass holds, in hours */
    passHours: z
      .number()
      .int()
      .min(1, 'Let a pass hold for an hour at least.')
      .max(LONGEST_PASS, 'Let a pass hold for a year at most.')
      .default(24 * 30),
    /** without a pass nobody learns that there is anything */
    hidden: z.boolean().default(false),
    /** the first page is shown to everybody */
    showsFirst: z.boolean().default(false),
    words: gateWordsSchema
      .partial()
      .default({})
      .transform(words => ({ ...EMPTY_WORDS, ...words })),
    /** whom to ask: an e-mail address, a number, a name; empty for nobody */
    ask: longText(200).default(''),
  })
  .refine(({ kind, terms }) => kind !== 'terms' || terms !== null, {
    message: 'Write the terms, or choose a file that holds them.',
    path: ['terms'],
  })
  .refine(({ from, until }) => !from || !until || from < until, { message: 'It has to open before it closes.', path: ['until'] })
  .refine(({ hidden, showsFirst }) => !hidden || !showsFirst, {
    message: 'What is hidden cannot show its first page.',
    path: ['showsFirst'],
  })
export type GateRule = z.infer<typeof gateRuleSchema>

/** How {@link CLOSED_GATE} works (as `server/db/migrations/0030_letterbox.sql` has it). */
export const CLOSED_RULE: GateRule = gateRuleSchema.parse({ kind: 'people', hidden: true })

const nameSchema = z.string().trim().min(1, 'Give the gate a name.').max(120, 'Keep the name to 120 characters.')

/** Fewest characters of a password that is shared: the limits on guessing do the rest. */
export const SHORTEST_SHARED = 6
const sharedPassword = z
  .string()
  .trim()
  .min(SHORTEST_SHARED, `Use at least ${SHORTEST_SHARED} characters.`)
  .max(200, 'Keep the password to 200 characters.')
const labelSchema = z.string().trim().max(120, 'Keep it to 120 characters.').default('')

export const newPasswordSchema = z.object({ label: labelSchema, password: sharedPassword })
export type NewPassword = z.infer<typeof newPasswordSchema>

export const newGateSchema = z.object({
  name: nameSchema,
  rule: gateRuleSchema,
  /** the first password of a gate that asks for one */
  password: sharedPassword.optional(),
})
export type NewGate = z.infer<typeof newGateSchema>

/** What is not said of its rule stays as it is: two windows that change different parts do not undo each other. */
export const gateChangeSchema = z.object({ name: nameSchema.optional(), rule: z.record(z.string(), z.unknown()).optional() })
export type GateChange = z.infer<typeof gateChangeSchema>

/** A password in the place of all there are. */
export const changedPasswordSchema = newPasswordSchema.extend({
  /** who came by an earlier one is asked again */
  endPasses: z.boolean().default(false),
})
export type ChangedPassword = z.infer<typeof changedPasswordSchema>

/** A gate as the desk's API gives it. */
export const gateItemSchema = z.object({
  id: z.string(),
  name: z.string(),
  rule: gateRuleSchema,
  passwords: z.array(
    z.object({
      id: z.string(),
      label: z.string(),
      /** ISO 8601 */
      created: z.string(),
    }),
  ),
  /** who gets through by name now */
  admits: z.number(),
  /** what stands behind it */
  files: z.number(),
  folders: z.number(),
  pages: z.number(),
  /** downloads that were let through */
  taken: z.number(),
  /** wrong passwords, and since when; 0 where there are none to speak of */
  wrong: z.number(),
  wrongSince: z.string().nullable(),
  created: z.string(),
})
export type GateItem = z.infer<typeof gateItemSchema>

/** Takes a gate away although things stand behind it: they are open then. */
export const removeGateSchema = z.object({ open: z.literal('yes').optional() }).transform(({ open }) => ({ open: open !== undefined }))

/** What stands behind a gate. */
export const gateUsesSchema = z.object({
  files: z.array(z.object({ id: z.string(), title: z.string() })),
  folders: z.array(z.object({ id: z.string(), name: z.string() })),
  pages: z.array(z.object({ id: z.string(), title: z.string() })),
})
export type GateUses = z.infer<typeof gateUsesSchema>

/** What an owner says of a file, folder or page: a gate, {@link OPEN_GATE}, or nothing, so that what is said further up holds. */
export const saidGateSchema = z.string().max(40).nullable()
