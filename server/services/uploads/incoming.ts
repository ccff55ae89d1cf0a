import { createReadStream } from 'node:fs'
import { mkdir, open, readFile, readdir, rm, stat, truncate } from 'node:fs/promises'
import { join } from 'node:path'
import type { Readable } from 'node:stream'
import { DataStore, ERRORS, Upload } from '@tus/utils'
import { isDiskFull } from '../../../core/diskFull'
import { createQueue } from '../../../core/queue'
import { writeSafely } from '../../store/safely'
import { sending } from './sending'
import { RunningDigest } from './digest'

/** What is known of an upload, kept beside its bytes as `<id>.json`. */
export interface UploadRecord {
  id: string
  /** bytes it will have; null until the sender says so (tus 1.0, Creation, Upload-Defer-Length) */
  size: number | null
  /** one of several that are put together, or what is put together of them (tus 1.0, Concatenation): its header */
  concat?: string
  metadata: Record<string, string | null>
  /** ISO 8601 */
  created: string
  /** set once all bytes are there; from then on the bytes belong to the library */
  whole?: { sha256: string; crc32: number }
}

export type WholeUpload = UploadRecord & { size: number; whole: NonNullable<UploadRecord['whole']> }

const EXPIRES_AFTER = 7 * 24 * 60 * 60 * 1000
/** Kept free, so that the database can always write what it has acknowledged. */
const RESERVE = 64 * 1000 * 1000

/** An error as @tus/server reads it. */
const refusal = (status_code: number, body: string) => Object.assign(new Error(body), { status_code, body })
const full = (detail: string) => refusal(507, `The disk is full. ${detail} Nothing in the library was touched.`)

/** Where bytes lie while they come in; what a process that ended left there is swept away by the next. */
export const partIn = (folder: string, id: string): string => join(folder, `${id}.part`)

/**
 * Unfinished uploads on disk, as @tus/server wants them: bytes in `<id>.part`, hashed while they come in.
 */
export class IncomingStore extends DataStore {
  private digests = new Map<string, RunningDigest>()
  private oneAtATime = createQueue()

  constructor(
    private folder: string,
    private free: () => Promise<number>,
  ) {
    super()
    // The name of the last one is written as @tus/server looks for it.
    this.extensions = [
      'creation',
      'creation-with-upload',
      'creation-defer-length',
      'termination',
      'checksum',
      'expiration',
      'concatentation',
    ]
  }

  partOf = (id: string) => partIn(this.folder, id)
  private recordOf = (id: string) => join(this.folder, `${id}.json`)

  async record(id: string): Promise<UploadRecord | undefined> {
    // Identities are made here; anything else never names a file, and may be longer than names of files can be.
    if (!/^[a-z0-9]{1,40}$/.test(id)) return undefined
    const text = await readFile(this.recordOf(id), 'utf8').catch((error: NodeJS.ErrnoException) => {
      if (error.code === 'ENOENT') return undefined
      throw error
    })
    return text === undefined ? undefined : (JSON.parse(text) as UploadRecord)
  }

  private writeRecord = (record: UploadRecord): Promise<void> => writeSafely(this.recordOf(record.id), JSON.stringify(record))

  /** Bytes that unfinished uploads have still been promised room for. */
  private async promised(): Promise<number> {
    let sum = 0
    for (const { id, size, whole } of await this.all())
      if (!whole && size !== null) sum += Math.max(0, size - ((await this.arrived(id)) ?? 0))
    return sum
  }

  /** @throws refusal 507 where more was promised than there is room for, all uploads together */
  private async mustHaveRoom(size: number): Promise<void> {
    if (!Number.isSafeInteger(size) || size < 0) throw ERRORS.INVALID_LENGTH
    if (size > (await this.free()) - RESERVE - (await this.promised()))
      throw full('Free some space or send a smaller file, or wait until other uploads are in, then try again.')
  }

  override create = (upload: Upload): Promise<Upload> =>
    this.oneAtATime(async () => {
      await this.mustHaveRoom(upload.size ?? 0)
      try {
        await mkdir(this.folder, { recursive: true })
        await (await open(this.partOf(upload.id), 'wx')).close()
        upload.creation_date = new Date().toISOString()
        await this.writeRecord({
          id: upload.id,
          size: upload.size ?? null,
          metadata: upload.metadata ?? {},
          created: upload.creation_date,
          ...(sending()?.concat && { concat: sending()!.concat }),
        })
      } catch (error) {
        if (isDiskFull(error)) throw full('Free some space, then try again.')
        throw error
      }
      return upload
    })

  /** The sender says now how long it will be. */
  override declareUploadLength = (id: string, size: number): Promise<void> =>
    this.oneAtATime(async () => {
      const record = await this.record(id)
      if (!record) throw ERRORS.FILE_NOT_FOUND
      await this.mustHaveRoom(size - ((await this.arrived(id)) ?? 0))
      await this.writeRecord({ ...record, size })
    })

  /**
   * Puts the bytes of whole parts one behind the other into a new upload; the parts stay as they are.
   *
   * @param parts identities, in their order
   * @throws refusal 400 or 404 where one is no whole part
   */
  async concatenate(id: string, parts: string[], metadata: UploadRecord['metadata'], concat: string): Promise<void> {
    const records = await Promise.all(parts.map(part => this.record(part)))
    let size = 0
    for (const [index, record] of records.entries()) {
      if (!record) throw ERRORS.FILE_NOT_FOUND
      if (record.concat !== 'partial') throw refusal(400, 'Only uploads that were begun with "Upload-Concat: partial" can be put together.')
      if (record.size === null || (await this.arrived(parts[index]!)) !== record.size)
        throw refusal(400, 'One of the parts is not finished. Finish it, then put them together.')
      size += record.size
    }
    await this.create(new Upload({ id, size, offset: 0, metadata }))
    const record = (await this.record(id))!
    await this.writeRecord({ ...record, concat })
    for (let index = 0, offset = 0; index < parts.length; index++) {
      offset = await this.write(createReadStream(this.partOf(parts[index]!)), id, offset)
    }
  }

  override async getUpload(id: string): Promise<Upload> {
    const record = await this.record(id)
    if (!record) throw ERRORS.FILE_NOT_FOUND
    const offset = record.whole ? record.size! : await this.arrived(id)
    if (offset === undefined) throw ERRORS.FILE_NOT_FOUND
    return new Upload({ id, size: record.size ?? undefined, offset, metadata: record.metadata, creation_date: record.created })
  }

  /** Bytes on disk; undefined where there is not even an empty part. */
  private arrived(id: string): Promise<number | undefined> {
    return stat(this.partOf(id)).then(
      ({ size }) => size,
      (error: NodeJS.ErrnoException) => {
        if (error.code === 'ENOENT') return undefined
        throw error
      },
    )
  }

  /** The digest of what is on disk: kept in memory, or read again after a restart. */
  private async digestAt(id: string, offset: number): Promise<RunningDigest> {
    const known = this.digests.get(id)
    if (known?.length === offset) return known
    const digest = await RunningDigest.ofFile(this.partOf(id))
    this.digests.set(id, digest)
    return digest
  }

  /**
   * Appends a request body. What arrived before a cut connection stays; a body that does not match its
   * announced checksum is dropped whole (tus 1.0, "Checksum", status 460).
   */
  override async write(stream: Readable, id: string, offset: number): Promise<number> {
    // Its bytes are the library's; a client that was not told comes once more, with nothing.
    if ((await this.record(id))?.whole) return offset
    const digest = await this.digestAt(id, offset)
    const checksum = sending()?.checksum
    const before = checksum && digest.copy()
    const rollBack = async () => {
      this.digests.set(id, before!)
      await truncate(this.partOf(id), offset)
    }

    const handle = await open(this.partOf(id), 'r+')
    let position = offset
    try {
      // Destroying the stream on the way out would hide a failed write behind an abort.
      for await (const chunk of stream.iterator({ destroyOnReturn: false }) as AsyncIterable<Buffer>) {
        // The disk works on this chunk while the processor hashes it.
        const written = handle.write(chunk, 0, chunk.length, position)
        checksum?.update(chunk)
        const { bytesWritten } = await written
        if (bytesWritten < chunk.length) throw Object.assign(new Error('short write'), { code: 'ENOSPC' })
        digest.update(chunk)
        position += chunk.length
      }
      await handle.datasync()
    } catch (error) {
      if (checksum) await rollBack()
      // A write that failed half-way leaves bytes that were never hashed.
      else await truncate(this.partOf(id), position)
      if (isDiskFull(error)) throw full('Free some space, then resume: what has arrived is kept.')
      throw error
    } finally {
      await handle.close()
    }
    if (checksum && !checksum.matches()) {
      await rollBack()
      throw refusal(460, 'Checksum Mismatch')
    }
    return position
  }

  /** Marks an upload as whole, with its digest; its bytes may be taken from then on. */
  async complete(record: UploadRecord): Promise<WholeUpload> {
    if (record.whole) return record as WholeUpload
    if (record.size === null) throw new RangeError(`Upload ${record.id} does not know yet how long it will be.`)
    const digest = await this.digestAt(record.id, record.size)
    if (digest.length !== record.size) throw new RangeError(`Upload ${record.id} has ${digest.length} of ${record.size} bytes.`)
    const whole: WholeUpload = { ...record, size: record.size, whole: digest.result() }
    await this.writeRecord(whole)
    this.digests.delete(record.id)
    return whole
  }

  override async remove(id: string): Promise<void> {
    if (!(await this.record(id))) throw ERRORS.FILE_NOT_FOUND
    this.digests.delete(id)
    await rm(this.partOf(id), { force: true })
    await rm(this.recordOf(id), { force: true })
  }

  override getExpiration = () => EXPIRES_AFTER

  /** All uploads on disk, whole or not. */
  async all(): Promise<UploadRecord[]> {
    const names = await readdir(this.folder)
    const records = await Promise.all(names.filter(name => name.endsWith('.json')).map(name => this.record(name.slice(0, -5))))
    return records.filter(record => record !== undefined)
  }

  /** Clears away what a process that died before `moment` left half made: parts without a note, notes without a part. */
  async sweep(moment: Date): Promise<void> {
    for (const name of await readdir(this.folder)) {
      const path = join(this.folder, name)
      const { mtime } = await stat(path)
      // What is being made just now looks half made too.
      if (mtime < moment && (await this.isHalf(name))) await rm(path, { force: true })
    }
  }

  private async isHalf(name: string): Promise<boolean> {
    const [id, ...kind] = name.split('.') as [string, ...string[]]
    switch (kind.join('.')) {
      case 'part':
        return !(await this.record(id))
      case 'json':
        return !(await this.record(id))?.whole && (await this.arrived(id)) === undefined
      case 'json.new':
        return true
      default:
        return false
    }
  }

  override async deleteExpired(now = Date.now()): Promise<number> {
    const expired = (await this.all()).filter(({ created }) => now - Date.parse(created) > EXPIRES_AFTER)
    for (const { id } of expired) await this.remove(id)
    return expired.length
  }
}
