declare module 'archiver' {
  import type { Readable, Transform } from 'node:stream'

  export class ZipArchive extends Transform {
    constructor(options?: { store?: boolean, highWaterMark?: number })
    append(source: Readable, data: { name: string }): this
    finalize(): Promise<void>
  }
}
