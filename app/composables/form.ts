import { computed, nextTick, reactive, ref } from 'vue'
import type { z } from 'zod'
import { useAsking } from '~/stores/asking'
import { ApiProblem, wordsOf } from './api'

/** Asked before something that was written is lost. */
export const LEAVING = { question: 'Leave what you wrote?', detail: 'It was not saved.', yes: 'Leave it', no: 'Go on writing' }

interface FormOptions<Schema extends z.ZodObject> {
  /** the one that the server reads what is sent with */
  schema: Schema
  /** what the fields hold at first, and whenever the form begins anew */
  begin: () => z.input<Schema>
  send: (value: z.output<Schema>) => Promise<unknown>
}

/** What an answer of the API says of each field (`issues`, or the one in `field`). */
function saidOfFields(problem: ApiProblem): Record<string, string> {
  const { issues, field } = problem.extra as { issues?: { field: string; message: string }[]; field?: string }
  if (issues) return Object.fromEntries(issues.map(({ field, message }) => [field, message]))
  return field ? { [field]: problem.message } : {}
}

/**
 * A form by the schema of what it sends: each field is checked as one types, and all of them when it is sent; what was never written in is
 * not found wrong before. What the server finds wrong stands at its field as well, and what belongs to no field in `problem`. While it is
 * on its way it is not sent again.
 */
export function useForm<Schema extends z.ZodObject>({ schema, begin, send }: FormOptions<Schema>) {
  type Name = keyof z.input<Schema> & string
  const fields = reactive({ ...begin() }) as Record<Name, unknown>
  const refused = ref<Record<string, string>>({})
  const problem = ref('')
  const busy = ref(false)
  const kept = ref(JSON.stringify(fields))
  /** fields that were written in; who only passes through one, to leave the form, is told nothing */
  const written = new Set<string>()

  function ruleOf(name: Name) {
    return (value: unknown) => {
      if (!written.has(name)) return true
      const result = (schema.shape as Record<string, z.ZodType>)[name]!.safeParse(value ?? '')
      return result.success || result.error.issues[0]!.message
    }
  }

  /** To be bound to the part of Vuetify that shows a field. */
  function field<N extends Name>(name: N) {
    return {
      'modelValue': fields[name] as z.input<Schema>[N],
      'onUpdate:modelValue': (value: unknown) => {
        written.add(name)
        fields[name] = value
        delete refused.value[name]
      },
      'rules': [ruleOf(name)],
      'errorMessages': refused.value[name],
    }
  }

  async function focusWrong(form: EventTarget | null): Promise<void> {
    await nextTick()
    ;(form as HTMLElement | null)?.querySelector<HTMLElement>('.v-input--error :is(input, textarea)')?.focus()
  }

  function refuse(error: unknown): void {
    const said = error instanceof ApiProblem ? saidOfFields(error) : {}
    refused.value = Object.fromEntries(Object.entries(said).filter(([name]) => name in schema.shape))
    if (!Object.keys(refused.value).length) problem.value = wordsOf(error)
  }

  /** For `@submit.prevent` of a `VForm`. */
  async function submit(event: Event): Promise<void> {
    const form = event.target
    if (busy.value) return
    busy.value = true
    problem.value = ''
    refused.value = {}
    try {
      const { success, data, error } = schema.safeParse({ ...fields })
      if (!success) {
        // The first of each field stands there.
        refused.value = Object.fromEntries(error.issues.toReversed().map(({ path, message }) => [String(path[0]), message]))
        return await focusWrong(form)
      }
      await send(data)
      kept.value = JSON.stringify(fields)
    } catch (error) {
      refuse(error)
      await focusWrong(form)
    } finally {
      busy.value = false
    }
  }

  /** Forgets what was written. */
  function reset(): void {
    written.clear()
    Object.assign(fields, begin())
    kept.value = JSON.stringify(fields)
    refused.value = {}
    problem.value = ''
  }

  /** What it begins with has come, or is another now: it stands in every field but those that were changed. */
  function renew(): void {
    const before = JSON.parse(kept.value) as Record<string, unknown>
    const fresh: Record<string, unknown> = begin()
    for (const name of Object.keys(fresh) as Name[])
      if (JSON.stringify(fields[name]) === JSON.stringify(before[name])) fields[name] = fresh[name]
    kept.value = JSON.stringify({ ...fields, ...fresh })
  }

  const changed = computed(() => JSON.stringify(fields) !== kept.value)
  let asked = false
  /** Leaves the form, once that was asked where something was written: for what is left by Escape, or by a press beside it. */
  async function leave(close: () => void): Promise<void> {
    if (asked) return
    asked = true
    const sure = !changed.value || (await useAsking().ask(LEAVING))
    asked = false
    if (sure) close()
  }

  return { fields: fields as z.input<Schema>, field, problem, busy, changed, submit, reset, renew, leave }
}
