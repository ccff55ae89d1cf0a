import { OWNER } from '../../demo/owner'

const sessions = new Map<string, Promise<string>>()

/** A session of its own, by its cookie. */
export async function signIn(url: string): Promise<string> {
  const response = await fetch(`${url}/api/session`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(OWNER),
  })
  if (!response.ok) throw new Error(`${response.status} ${await response.text()}`)
  return response.headers
    .getSetCookie()
    .map(line => line.split(';')[0])
    .join('; ')
}

/** The owner's session cookie, got without a browser; once for each server, since checking a password is made slow. */
export function cookieOf(url: string): Promise<string> {
  if (!sessions.has(url)) sessions.set(url, signIn(url))
  return sessions.get(url)!
}

/** Begins an upload; gives its address. */
export async function beginUpload(
  url: string,
  cookie: string,
  name: string,
  size: number,
  more: Record<string, string> = {},
): Promise<string> {
  const metadata = Object.entries({ filename: name, ...more })
    .map(([key, value]) => `${key} ${Buffer.from(value).toString('base64')}`)
    .join(',')
  const response = await fetch(`${url}/api/uploads`, {
    method: 'POST',
    headers: { cookie, 'Tus-Resumable': '1.0.0', 'Upload-Length': String(size), 'Upload-Metadata': metadata },
  })
  if (response.status !== 201) throw new Error(`${response.status} ${await response.text()}`)
  return url + response.headers.get('location')!
}

export const offsetOf = async (address: string, cookie: string) =>
  Number((await fetch(address, { method: 'HEAD', headers: { cookie, 'Tus-Resumable': '1.0.0' } })).headers.get('upload-offset'))

/** Sends bytes from an offset on. */
export const sendFrom = (address: string, cookie: string, offset: number, bytes: Buffer) =>
  fetch(address, {
    method: 'PATCH',
    headers: { cookie, 'Tus-Resumable': '1.0.0', 'Upload-Offset': String(offset), 'Content-Type': 'application/offset+octet-stream' },
    body: new Uint8Array(bytes),
  })

/** Uploads a file whole; gives its identity. */
export async function upload(url: string, name: string, bytes: Buffer, known?: string): Promise<string> {
  const cookie = known ?? (await cookieOf(url))
  const response = await sendFrom(await beginUpload(url, cookie, name, bytes.length), cookie, 0, bytes)
  return response.headers.get('trough-file')!
}
