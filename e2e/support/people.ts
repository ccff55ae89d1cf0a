import type { Holder } from '../../core/rights/rights'
import { ownerApi } from './owner'

const PASSWORD = 'a password of one’s own'

/** What the newest message to an address holds after the hash of its link. */
export async function tokenFor(url: string, email: string): Promise<string> {
  const api = await ownerApi(url)
  const { items } = await api<{ items: { id: string; to: string }[] }>('/outbox')
  const { text } = await api<{ text: string }>(`/outbox/${items.find(({ to }) => to === email)!.id}`)
  return /\/desk\/join#(\S+)/.exec(text)![1]!
}

const cookiesOf = (answer: Response) =>
  answer.headers
    .getSetCookie()
    .map(line => line.split(';')[0])
    .join('; ')

/** Somebody who was invited and came; with the cookie of their session. */
export async function makeHelper(url: string, email: string, rights: Holder) {
  const api = await ownerApi(url)
  const { id: invited } = await api<{ id: string }>('/people/invitations', { method: 'POST', json: { email, rights } })
  const answer = await fetch(`${url}/api/entry`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ token: await tokenFor(url, email), password: PASSWORD }),
  })
  if (!answer.ok) throw new Error(`${invited} could not come: ${answer.status} ${await answer.text()}`)
  const { account } = (await answer.json()) as { account: { id: string } }
  return { id: account.id, email, password: PASSWORD, cookie: cookiesOf(answer) }
}
