import { createAsker, workerScript } from '../workerHost'
import type { Visitor, VisitorFacts } from '../../workers/visitorFacts'

/** Milliseconds without an answer after which the worker is taken for dead. */
const PATIENCE = 20_000

/** Says of visitors in a worker what their address and browser tell in broad words. */
export function createDescribing() {
  const worker = createAsker<Visitor[], VisitorFacts[]>(workerScript('visitors'), PATIENCE)
  return { describe: worker.ask, close: worker.close }
}
export type Describing = ReturnType<typeof createDescribing>
