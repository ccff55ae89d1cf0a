import { z } from 'zod'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { easyPassword } from '~~/core/gate/generate'
import {
  CLOSED_GATE,
  CLOSED_RULE,
  OPEN_GATE,
  gateItemSchema,
  gateRuleSchema,
  gateUsesSchema,
  type GateChange,
  type GateItem,
  type GateRule,
  type GateUses,
  type NewGate,
} from '~~/core/gate/gate'
import { ApiProblem, ask, tell } from '~/composables/api'

const listSchema = z.object({ items: z.array(gateItemSchema) })

/** A whole number below one, each as likely as any other: what would not divide evenly is drawn again. */
function randomBelow(below: number): number {
  const most = Math.floor(2 ** 32 / below) * below
  for (;;) {
    const [drawn] = crypto.getRandomValues(new Uint32Array(1))
    if (drawn! < most) return drawn! % below
  }
}
/** A strong password that can be told on the telephone. */
export const offeredPassword = () => easyPassword(randomBelow)
import { useRights } from './rights'

/** The gates of the site, and what the owner does with them. */
export const useGates = defineStore('gates', () => {
  const items = ref<GateItem[]>([])
  const loaded = ref(false)
  const byId = computed(() => new Map(items.value.map(item => [item.id, item])))
  /** with that of the gate nobody passes, which is in no list */
  const rules = computed(
    (): ReadonlyMap<string, { rule: GateRule }> =>
      new Map<string, { rule: GateRule }>([...byId.value, [CLOSED_GATE, { rule: CLOSED_RULE }]]),
  )
  /** passwords that were just made, by their gates: they are shown until the desk is left, since nobody can read them later */
  const fresh = ref<Record<string, string>>({})

  async function load() {
    if (useRights().may('gates')) items.value = (await ask(listSchema, '/gates')).items
    loaded.value = true
  }

  async function take(changed: Promise<GateItem>): Promise<GateItem> {
    const gate = await changed
    await load()
    return gate
  }

  async function create(gate: NewGate): Promise<GateItem> {
    const made = await take(ask(gateItemSchema, '/gates', 'POST', gate))
    if (gate.password) fresh.value[made.id] = gate.password
    return made
  }

  /** A gate that asks what it asks by itself, called after what it is put on. */
  function createFor(title: string, kind: 'password' | 'email'): Promise<GateItem> {
    const names = new Set(items.value.map(({ name }) => name.toLowerCase()))
    let name = title.slice(0, 110)
    for (let number = 2; names.has(name.toLowerCase()); number++) name = `${title.slice(0, 110)}, ${number}`
    return create({ name, rule: gateRuleSchema.parse({ kind }), ...(kind === 'password' && { password: offeredPassword() }) })
  }

  const change = (id: string, changed: GateChange) => take(ask(gateItemSchema, `/gates/${id}`, 'PATCH', changed))
  const setRule = (gate: GateItem, part: Partial<GateRule>) => change(gate.id, { rule: part })

  async function addPassword(id: string, label: string, password: string) {
    await take(ask(gateItemSchema, `/gates/${id}/passwords`, 'POST', { label, password }))
    fresh.value[id] = password
  }
  async function changePassword(id: string, label: string, password: string, endPasses: boolean) {
    await take(ask(gateItemSchema, `/gates/${id}/passwords`, 'PUT', { label, password, endPasses }))
    fresh.value[id] = password
  }
  const removePassword = (id: string, password: string) => take(ask(gateItemSchema, `/gates/${id}/passwords/${password}`, 'DELETE'))
  const endPasses = (id: string) => take(ask(gateItemSchema, `/gates/${id}/end-passes`, 'POST', {}))
  const uses = (id: string): Promise<GateUses> => ask(gateUsesSchema, `/gates/${id}/uses`)

  /** Takes a gate away; gives what stands behind it where that holds it back. */
  async function remove(id: string, open = false): Promise<GateUses | undefined> {
    try {
      await tell(`/gates/${id}${open ? '?open=yes' : ''}`, 'DELETE')
    } catch (error) {
      const held = error instanceof ApiProblem ? gateUsesSchema.safeParse(error.extra.uses) : undefined
      if (held?.success) return held.data
      throw error
    }
    await load()
    return undefined
  }

  /** What is called what it is: a gate, or none. */
  const nameOf = (id: string | null): string => {
    if (id === null || id === OPEN_GATE) return 'Everyone'
    return id === CLOSED_GATE ? 'Nobody: only at the desk' : (byId.value.get(id)?.name ?? 'A gate')
  }

  return {
    items,
    loaded,
    byId,
    rules,
    fresh,
    load,
    create,
    createFor,
    change,
    setRule,
    addPassword,
    changePassword,
    removePassword,
    endPasses,
    uses,
    remove,
    nameOf,
  }
})
