import { readFile, stat } from 'node:fs/promises'
import { Unreadable } from './reader'

/** Bytes of a document that is taken into memory whole; those of offices seldom have a hundredth of that. */
const MOST = 100_000_000

export async function bytesOf(path: string): Promise<Buffer> {
  if ((await stat(path)).size > MOST) throw new Unreadable('The document is too large to be looked into. Visitors can download it.')
  return readFile(path)
}

/** What a library says of a document that it cannot open, in words for its owner. */
export function refusal(error: unknown): Unreadable {
  const { message } = error as Error
  return /password|encrypt/i.test(message)
    ? new Unreadable('The document is locked with a password: visitors need it, too.')
    : new Unreadable(`The document is damaged or of another kind than its name says (${message}).`)
}
