declare module 'archiver' {
  import type { Transform } from 'node:stream'

  export class ZipArchive extends Transform {
    constructor(options?: { store?: boolean; highWaterMark?: number })
    file(path: string, data: { name: string }): this
    finalize(): Promise<void>
  }
}
