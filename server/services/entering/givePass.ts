import type { KnownGate } from '../gates/standing'
import type { Passes } from '../gates/passes'
import { passUntil, type Comer } from './coming'

/** The cookie that lets somebody through a gate from now on. @param id whom it counts as @param by what it was given by */
export const createGivePass =
  (passes: Passes, now: () => number) =>
  (gate: KnownGate, id: string, by: string, { secure }: Pick<Comer, 'secure'>): string =>
    passes.cookie(passes.give({ gate: gate.id, epoch: gate.epoch, id, by, until: passUntil(gate, now()) }), secure, now())
export type GivePass = ReturnType<typeof createGivePass>
