import { createHmac } from 'node:crypto'
import { LRUCache } from 'lru-cache'
import { isRobot } from '../../../core/tally/robots'

/** Who was seen of late; what is said of them costs more than finding it again. */
const KEPT = 5000

/** Tells one visitor from another, and robots from people, without keeping who they are. */
export function createWho(secret: string) {
  const robots = new LRUCache<string, boolean>({ max: KEPT })
  const marks = new LRUCache<string, string>({ max: KEPT })

  return {
    /** A keyed hash of address and browser: it only keeps what one visitor does together. */
    markOf(address: string, userAgent = ''): string {
      const who = `${address}\n${userAgent}`
      const known = marks.get(who)
      if (known !== undefined) return known
      const mark = createHmac('sha256', secret).update(who).digest('base64')
      marks.set(who, mark)
      return mark
    },
    isRobot(userAgent = ''): boolean {
      const known = robots.get(userAgent)
      if (known !== undefined) return known
      const robot = isRobot(userAgent)
      robots.set(userAgent, robot)
      return robot
    },
  }
}
export type Who = ReturnType<typeof createWho>
