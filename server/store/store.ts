import type { Readable } from 'node:stream'
import type { ByteRange } from '../../core/http/range'

/** Bytes that are open to be read. */
export interface OpenBlob {
  /** bytes, as they lie there now */
  size(): Promise<number>
  /** Reads into a buffer as much as there is from a place on; gives how many bytes, 0 behind the end. */
  read(into: Uint8Array, position: number): Promise<number>
  close(): Promise<void>
}

/** Where bytes live, each under the SHA-256 of its contents, in 64 hexadecimal digits. */
export interface Store {
  has(sha256: string): Promise<boolean>
  /** Takes over a finished file: when this returns, its bytes are safely in the store and gone from `path`. */
  adopt(sha256: string, path: string): Promise<void>
  /** @throws Error with code ENOENT where the store has no such bytes */
  open(sha256: string): Promise<OpenBlob>
  /** The bytes of a stretch, as they are read. */
  read(sha256: string, range: ByteRange): Readable
  /**
   * Lends the bytes as a file to a tool that needs one: its path is good until `use` has ended, and for reading only.
   * Where the store has no such bytes, opening it fails with ENOENT.
   */
  withFile<Result>(sha256: string, use: (path: string) => Promise<Result>): Promise<Result>
  /** Lends several at once, in the order of their hashes; see {@link withFile}. */
  withFiles<Result>(hashes: string[], use: (files: { sha256: string; path: string }[]) => Promise<Result>): Promise<Result>
  remove(sha256: string): Promise<void>
  /** Takes bytes out of the store without losing them: they lie beside it until {@link emptySetAside}. */
  setAside(sha256: string): Promise<void>
  /** Removes for good what was set aside before a moment. */
  emptySetAside(before: Date): Promise<void>
  /** Every hash in the store. */
  list(): AsyncIterable<string>
  /** Bytes that can still be written. */
  free(): Promise<number>
  /** Bytes there is room for in all. */
  capacity(): Promise<number>
}
