import { defineEventHandler } from 'h3'
import type { Access } from '../services/rights/access'
import type { Told } from '../services/news'
import { accessOf } from '../utils/access'
import { useTrough } from '../utils/trough'

/** Milliseconds after which something is sent in any case: fronts end connections on which nothing moves, after a minute or so. */
const BEAT = 20_000
/** Bytes that nobody takes before a desk counts as gone. */
const MOST_WAITING = 64 * 1024

/** What is told to those alone who may see it; the rest says no more than that something changed. */
function mayHear(access: Access, topic: Told): boolean {
  if (topic === 'contacts' || topic === 'arrivals') return access.may('contacts')
  if (topic === 'gates' || topic === 'links') return access.may('gates')
  return (topic !== 'outbox' && topic !== 'hooks') || access.owner
}

/** What changes, as it does (server-sent events, HTML standard, section 9.2): a list of topics each time. */
export default defineEventHandler(async event => {
  const access = await accessOf(event)
  const { news, sessions } = await useTrough()
  const { req, res } = event.node
  event._handled = true
  // Who went while it was asked who they are says so no second time.
  if (res.closed) return
  res.writeHead(200, { 'Content-Type': 'text/event-stream', 'X-Accel-Buffering': 'no' })
  function send(text: string) {
    if (res.writableEnded) return
    if (res.writableLength > MOST_WAITING) res.destroy()
    else res.write(text)
  }
  const endIfSignedOut = async () => {
    if (!(await sessions.isSignedIn(req.headers.cookie))) res.end()
  }
  send(': followed\n\n')

  const unfollow = news.follow({
    tell(topics) {
      const told = topics.filter(topic => mayHear(access, topic))
      if (told.length) send(`data: ${JSON.stringify(told)}\n\n`)
      if (topics.includes('sessions')) void endIfSignedOut().catch(() => res.end())
    },
    end: () => res.end(),
  })
  const beat = setInterval(() => {
    send(': still here\n\n')
    void endIfSignedOut().catch(() => res.end())
  }, BEAT)
  return new Promise<void>(resolve => {
    res.on('close', () => {
      clearInterval(beat)
      unfollow()
      resolve()
    })
  })
})
