import { isbot } from 'isbot'

/** Whether a User-Agent is a robot's or is missing; robots are not counted (COUNTER Code of Practice, section 7.8). */
export function isRobot(userAgent: string | undefined): boolean {
  return !userAgent || isbot(userAgent)
}
