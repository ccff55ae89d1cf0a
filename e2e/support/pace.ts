import type { Page } from '@playwright/test'

/** Lets what a page sends out pass at so many bytes a second from now on; at full speed without one. */
export async function sendAt(page: Page, bytesPerSecond = -1): Promise<void> {
  const client = await page.context().newCDPSession(page)
  await client.send('Network.enable')
  await client.send('Network.emulateNetworkConditions', { offline: false, latency: 0, downloadThroughput: -1, uploadThroughput: bytesPerSecond })
}
