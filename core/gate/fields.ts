import { z } from 'zod'

/** What a gate's form can ask beside the e-mail address. */
export const FIELD_KINDS = ['text', 'long', 'choice', 'tick'] as const
export type FieldKind = (typeof FIELD_KINDS)[number]

const MOST_FIELDS = 20
const MOST_CHOICES = 60

export const gateFieldSchema = z
  .object({
    /** tells one field from another */
    id: z.string().regex(/^[a-z0-9]{6,16}$/),
    kind: z.enum(FIELD_KINDS),
    label: z.string().trim().min(1, 'Say what the field asks for.').max(120, 'Keep it to 120 characters.'),
    required: z.boolean().default(false),
    /** what there is to choose from */
    choices: z.array(z.string().trim().min(1).max(120)).max(MOST_CHOICES).default([]),
  })
  .refine(({ kind, choices }) => kind !== 'choice' || choices.length > 0, { message: 'Give at least one choice.', path: ['choices'] })
export type GateField = z.infer<typeof gateFieldSchema>

export const fieldsSchema = z.array(gateFieldSchema).max(MOST_FIELDS, `Keep a form to ${MOST_FIELDS} fields.`)

/** Characters somebody may write into a field. */
const LONGEST: Record<FieldKind, number> = { text: 300, long: 4000, choice: 120, tick: 3 }

export type Answers = { label: string; value: string }[]

/**
 * What somebody wrote into the fields of a form, in their order; fields left empty are left out.
 *
 * @param given the value of a field by its identity; null where the form has none
 * @returns the answers, and the fields in which something is missing or cannot be
 */
export function readAnswers(fields: GateField[], given: (id: string) => string | null): { answers: Answers; wrong: string[] } {
  const answers: Answers = []
  const wrong: string[] = []
  for (const { id, kind, label, required, choices } of fields) {
    const value = (given(id) ?? '').trim()
    if (value === '') {
      if (required) wrong.push(id)
    } else if (value.length > LONGEST[kind] || (kind === 'choice' && !choices.includes(value))) wrong.push(id)
    // What is told apart by lines, in messages and tables, is one line.
    else
      answers.push({ label, value: kind === 'tick' ? 'yes' : kind === 'long' ? value.replace(/\r\n?/g, '\n') : value.replace(/\s+/g, ' ') })
  }
  return { answers, wrong }
}
