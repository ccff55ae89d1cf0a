import { parentPort } from 'node:worker_threads'
import { compareTexts, type TextComparison, type TextPart } from '../../core/editions/compareTexts'

export interface CompareTask {
  before: TextPart[]
  after: TextPart[]
}
export type CompareMessage = TextComparison

/** Compares long texts away from everything else. */
parentPort!.on('message', ({ before, after }: CompareTask) => parentPort!.postMessage(compareTexts(before, after) satisfies CompareMessage))
