import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import { withoutPlaces } from '../../core/files/withoutPlaces'
import { createQueue } from '../../core/queue'
import { laterTrouble } from '../log'
import { ROOT } from '../root'

/** Megabytes a worker's own objects may take; more ends it, not Trough. */
const MEMORY = 1024

/** Where the build puts a worker. */
export const workerScript = (name: string) => join(ROOT, `.output/workers/${name}.mjs`)

export interface WorkerHost<Task, Message> {
  /**
   * Hands one task to the worker; the caller waits for it before handing over the next.
   *
   * @param onMessage is told of each message; true ends the task
   * @throws Error in words for people, where the worker dies or is silent too long; the next task gets a new one
   */
  run: (task: Task, onMessage: (message: Message, reply: (answer: unknown) => void) => boolean) => Promise<void>
  close: () => Promise<void>
}

/** Keeps one worker for a kind of task, and starts another where one dies or hangs. */
export function createWorkerHost<Task, Message>(script: string, patience: number): WorkerHost<Task, Message> {
  let worker: Worker | undefined
  /** the one that has a task, whose end is told to whoever gave it */
  let atWork: Worker | undefined

  function start(): Worker {
    const started = new Worker(script, { resourceLimits: { maxOldGenerationSizeMb: MEMORY } })
    const forget = () => {
      if (worker === started) worker = undefined
    }
    // One that dies between two tasks, or while it is ended, has somebody to hear of it, too: nobody waits for a dead one, and an error
    // that nobody hears would be one of the whole process.
    started.on('exit', forget).on('error', error => {
      forget()
      if (atWork !== started) laterTrouble('a worker stopped between its tasks')(error)
    })
    return started
  }

  function run(task: Task, onMessage: (message: Message, reply: (answer: unknown) => void) => boolean): Promise<void> {
    const current = (atWork = worker ??= start())
    return new Promise((resolve, reject) => {
      const settle = (outcome: () => void) => {
        clearTimeout(timer)
        atWork = undefined
        current.off('message', hear).off('error', onError).off('exit', onExit)
        outcome()
      }
      const fail = (message: string) =>
        settle(() => {
          if (worker === current) worker = undefined
          void current.terminate()
          reject(new Error(message))
        })
      const outOfTime = () => fail('Reading it took too long.')
      let timer = setTimeout(outOfTime, patience)
      const hear = (message: Message) => {
        // A long file that goes on saying something is not hanging.
        clearTimeout(timer)
        timer = setTimeout(outOfTime, patience)
        if (onMessage(message, answer => current.postMessage(answer))) settle(resolve)
      }
      const onError = (error: unknown) =>
        fail(`Reading it stopped: ${withoutPlaces(error instanceof Error ? error.message : String(error))}`)
      const onExit = () => fail('Reading it stopped the reader.')
      current.on('message', hear).on('error', onError).on('exit', onExit)
      current.postMessage(task)
    })
  }

  return {
    run,
    async close() {
      const stopping = worker
      worker = undefined
      await stopping?.terminate()
    },
  }
}

/** A worker that answers each task with one message; those that ask wait for their turn. */
export function createAsker<Task, Answer>(
  script: string,
  patience: number,
): { ask: (task: Task) => Promise<Answer>; close: () => Promise<void> } {
  const host = createWorkerHost<Task, Answer>(script, patience)
  const oneAtATime = createQueue()
  const ask = (task: Task): Promise<Answer> =>
    oneAtATime(async () => {
      let answer: Answer | undefined
      await host.run(task, message => {
        answer = message
        return true
      })
      return answer!
    })
  return { ask, close: () => host.close() }
}
