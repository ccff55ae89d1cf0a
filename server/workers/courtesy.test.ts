import { execFileSync } from 'node:child_process'
import { describe, expect, it } from 'vitest'

/** The priority of a thread after it has stepped back, in a process that was started with one and may not come forward again. */
function priorityAfter(start: number, by: string): number {
  const code = `import { getPriority } from 'node:os'
    import { comeAfterVisitors } from './server/workers/courtesy.ts'
    comeAfterVisitors(${by})
    console.log(getPriority())`
  // Root may do everything, but for what it is denied: capabilities(7).
  const denied = process.getuid!() === 0 ? ['setpriv', '--bounding-set=-sys_nice', '--inh-caps=-sys_nice'] : []
  const [command, ...args] = [...denied, process.execPath, '--import', 'tsx', '--input-type=module', '-e', code]
  return Number(execFileSync('nice', ['-n', String(start), command!, ...args], { encoding: 'utf8' }))
}

describe.runIf(process.platform === 'linux')('work that comes after visitors', () => {
  // Tests may have been started behind others themselves.
  const own = Number(execFileSync('nice', { encoding: 'utf8' }))

  it.each(['', '3'])('steps back where it may (%s)', by => {
    expect(priorityAfter(0, by)).toBe(Math.max(own, Number(by || 10)))
  })

  it('stays where it is where the whole process was started further back', () => {
    expect(priorityAfter(19, '')).toBe(19)
  })
})
