import { Counter, Gauge, Histogram, Registry, collectDefaultMetrics } from 'prom-client'

/** What was asked for: a file or bundle, a published page, the desk's API, or the desk itself. */
export type RequestKind = 'file' | 'page' | 'api' | 'desk'

/** What is asked for only when the measurements are read. */
export interface Gauges {
  /** documents whose words are still to be read */
  reading: () => Promise<number>
  /** jobs under way */
  jobs: () => number
  /** bytes stored, and bytes that can still be written */
  storage: () => Promise<{ stored: number; free: number }>
  files: () => Promise<number>
}

/** Answers that are counted together. */
const AT_ONCE = 500

/** Measurements in the OpenMetrics text format (OpenMetrics 1.0; written by prom-client). */
export function createMetrics({ reading, jobs, storage, files }: Gauges) {
  const registry = new Registry<typeof Registry.OPENMETRICS_CONTENT_TYPE>()
  registry.setContentType(Registry.OPENMETRICS_CONTENT_TYPE)
  const registers = [registry]
  collectDefaultMetrics({ register: registry as unknown as Registry, prefix: 'trough_' })

  // Kept here and given to the counters when they are read, or to the histogram many together: their own counting would cost each visitor
  // more than the rest of the measuring.
  let waiting: { kind: RequestKind; status: number; bytes: number; duration: number }[] = []
  const counted = new Map<string, { kind: RequestKind; status: number; answers: number; bytes: number }>()
  new Counter({
    name: 'trough_requests',
    help: 'Requests answered.',
    labelNames: ['kind', 'status'],
    registers,
    collect() {
      settle()
      this.reset()
      for (const { kind, status, answers } of counted.values()) this.inc({ kind, status }, answers)
    },
  })
  new Counter({
    name: 'trough_sent_bytes',
    help: 'Bytes of answers, heads included.',
    labelNames: ['kind'],
    registers,
    collect() {
      settle()
      this.reset()
      for (const { kind, bytes } of counted.values()) this.inc({ kind }, bytes)
    },
  })
  const seconds = new Histogram({
    name: 'trough_request_seconds',
    help: 'From a request to the end of its answer.',
    labelNames: ['kind'],
    buckets: [0.001, 0.003, 0.01, 0.03, 0.1, 0.3, 1, 3, 10, 60, 600],
    registers,
    collect: () => settle(),
  })
  new Gauge({
    name: 'trough_reading_waiting',
    help: 'Documents whose words are still to be read.',
    registers,
    async collect() {
      this.set(await reading())
    },
  })
  new Gauge({
    name: 'trough_jobs_running',
    help: 'Jobs under way.',
    registers,
    collect() {
      this.set(jobs())
    },
  })
  new Gauge({
    name: 'trough_files',
    help: 'Files and bundles outside the bin.',
    registers,
    async collect() {
      this.set(await files())
    },
  })
  new Gauge({
    name: 'trough_store_bytes',
    help: 'Bytes of the disk the store lies on.',
    labelNames: ['state'],
    registers,
    async collect() {
      const { stored, free } = await storage()
      this.set({ state: 'stored' }, stored)
      this.set({ state: 'free' }, free)
    },
  })
  // Looking labels up for every request would cost more than the rest of the measuring.
  const secondsOf = Object.fromEntries((['file', 'page', 'api', 'desk'] as const).map(kind => [kind, seconds.labels(kind)])) as Record<
    RequestKind,
    Histogram.Internal<'kind'>
  >

  function settle(): void {
    for (const { kind, status, bytes, duration } of waiting) {
      const key = kind + status
      let count = counted.get(key)
      if (!count) counted.set(key, (count = { kind, status, answers: 0, bytes: 0 }))
      count.answers++
      count.bytes += bytes
      secondsOf[kind].observe(duration)
    }
    waiting = []
  }

  return {
    contentType: registry.contentType,

    /** Counts one answered request; `duration` in seconds. */
    observe(kind: RequestKind, status: number, bytes: number, duration: number): void {
      waiting.push({ kind, status, bytes, duration })
      if (waiting.length === AT_ONCE) settle()
    },

    /** All measurements as they are now. */
    read: (): Promise<string> => registry.metrics(),
  }
}
export type Metrics = ReturnType<typeof createMetrics>
