import { parentPort } from 'node:worker_threads'
import { comeAfterVisitors } from './courtesy'
import { factsOf, type Visitor } from './visitorFacts'

comeAfterVisitors()
parentPort!.on('message', (visitors: Visitor[]) => parentPort!.postMessage(visitors.map(factsOf)))
