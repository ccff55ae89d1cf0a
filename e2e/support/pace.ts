import type { CDPSession, Page } from '@playwright/test'

/** Milliseconds within which what is looked for anew has been loaded by a machine that is busy: sooner would be before it stands there. */
export const EACH_LOOK = 20_000

const sessions = new WeakMap<Page, Promise<CDPSession>>()

async function openSession(page: Page): Promise<CDPSession> {
  const session = await page.context().newCDPSession(page)
  await session.send('Network.enable')
  return session
}

/** Lets what a page sends out pass at so many bytes a second from now on; at full speed without one. */
export async function sendAt(page: Page, bytesPerSecond = -1): Promise<void> {
  // One session says both: what one has slowed down, another does not speed up.
  const session = sessions.get(page) ?? openSession(page)
  sessions.set(page, session)
  await (
    await session
  ).send('Network.emulateNetworkConditions', { offline: false, latency: 0, downloadThroughput: -1, uploadThroughput: bytesPerSecond })
}
