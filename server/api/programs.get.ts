import { defineEventHandler } from 'h3'
import { PROGRAMS, type ProgramName } from '../../core/files/programs'
import { useTrough } from '../utils/trough'

/** Which programs this machine has for reading more, and the package of each. */
export default defineEventHandler(async () => {
  const { programs } = await useTrough()
  return {
    items: (Object.keys(PROGRAMS) as ProgramName[]).map(name => ({
      name,
      found: programs[name] !== undefined,
      debian: PROGRAMS[name].debian,
    })),
  }
})
