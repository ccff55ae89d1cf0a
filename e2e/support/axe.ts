import type { Page } from '@playwright/test'
import axe from 'axe-core'

/** Success criteria of WCAG 2.2, levels A and AA, and what axe calls best practice. */
const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']

/** It looks into frames as well, whatever their origin. */
const AXE = `${axe.source}; axe.configure({ allowedOrigins: ['<unsafe_all_origins>'] })`

/**
 * What axe finds wrong on the whole page or in the parts that a selector names: a line for each rule, with the elements that break it.
 * It is brought to each document once, not before each look, and is asked for what is wrong alone: a third of the time.
 */
export async function violations(page: Page, part = 'html'): Promise<string[]> {
  for (const frame of page.frames()) if (!(await frame.evaluate(() => 'axe' in window))) await frame.evaluate(AXE)
  const found = await page.evaluate(
    async ([part, values]) => {
      const { violations } = await (window as unknown as { axe: typeof axe }).axe.run(
        { include: [part] },
        { runOnly: { type: 'tag', values }, resultTypes: ['violations'] },
      )
      return violations.map(({ id, nodes }) => ({ id, targets: nodes.map(({ target }) => target.join(' ')) }))
    },
    [part, TAGS] as const,
  )
  return found.map(({ id, targets }) => `${id}: ${targets.join(', ')}`)
}
