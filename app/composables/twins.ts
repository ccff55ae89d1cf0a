import { z } from 'zod'
import { fileItemSchema, type FileItem } from '~~/core/files/fileItem'
import { ask } from './api'

const foundSchema = z.object({ items: z.array(fileItemSchema) })

/** Bytes up to which a file is looked for before it is sent: it is read whole for that. */
const MOST = 64_000_000

/** SHA-256 as hex digits (FIPS 180-4); undefined where the browser has none, as at an address without encryption. */
async function sha256Of(file: File): Promise<string | undefined> {
  if (file.size > MOST || !globalThis.crypto?.subtle) return undefined
  const digest = await crypto.subtle.digest('SHA-256', await file.arrayBuffer())
  return [...new Uint8Array(digest)].map(byte => byte.toString(16).padStart(2, '0')).join('')
}

/** The file of the library that has the bytes of one of the computer; undefined where there is none, or it cannot be told. */
export async function twinOf(file: File): Promise<FileItem | undefined> {
  const sha256 = await sha256Of(file)
  if (!sha256) return undefined
  const { items } = await ask(foundSchema, `/files/twins?sha256=${sha256}`)
  return items.find(item => item.sha256 === sha256 && !item.withdrawn)
}
