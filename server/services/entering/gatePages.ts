import type { Why } from '../../../core/gate/closed'
import { GATE_CSS, gatePageHtml, type GateFault, type GateSight } from '../../../core/gate/gatePage'
import type { Speech } from '../../../core/language/speech'
import { VisitorProblem } from '../../../core/language/visitorProblem'
import { SEEK_CSS } from '../../../core/search/searchCss'
import { isBuiltIn } from '../../../core/gate/gate'
import { isOut } from '../files/items'
import type { KeptStanding, KnownGate } from '../gates/standing'
import type { LibraryService } from '../library/library'
import type { PageService } from '../pages/pages'
import type { Made } from '../published/packed'
import type { PublishedPages } from '../published/published'
import type { createFormSeal } from './formSeal'

interface Needs {
  standing: KeptStanding
  published: Pick<PublishedPages, 'made'>
  library: Pick<LibraryService, 'listed'>
  pages: Pick<PageService, 'livePages'>
  forms: ReturnType<typeof createFormSeal>
}

/** The pages that stand at gates, in the style of the site. */
export function createGatePages({ standing, published, library, pages, forms }: Needs) {
  /** A page of the site with something to fill in. */
  const page = (title: string, write: (speech: Speech) => string): Promise<Made> =>
    published.made({
      title,
      description: '',
      files: [],
      parts: ['search', 'downloadButton', 'downloadLink', 'heading'],
      css: SEEK_CSS + GATE_CSS,
      write: (_renderer, speech) => write(speech),
    })

  /** The file that holds the terms of a gate, as visitors get it now. */
  async function termsFileOf({ rule: { terms } }: KnownGate) {
    const [file] = terms?.file ? await library.listed([terms.file]) : []
    return file && !isOut(file) ? file : undefined
  }

  return {
    page,
    termsFileOf,

    /** @throws VisitorProblem 404 */
    async gateAt(id: string): Promise<KnownGate> {
      const gate = (await standing.get()).gates.get(id)
      // Those that everybody passes, or nobody, have no door.
      if (!gate || isBuiltIn(gate.id)) throw new VisitorProblem(404, 'nowhere')
      return gate
    },

    /** What somebody wants is called; how the gate is called where nothing is known of that. */
    async titleOf(gate: KnownGate, wanted: string | undefined): Promise<string> {
      if (wanted === undefined || gate.rule.hidden) return gate.name
      const [file] = await library.listed([wanted])
      return file?.title ?? (await pages.livePages([wanted])).get(wanted)?.title ?? gate.name
    },

    /** What stands where something is behind a gate: what it asks, or why nobody gets through. */
    async sight(
      gate: KnownGate,
      why: Why,
      to: string,
      title: string,
      { fault, wrong = [], form }: { fault?: GateFault; wrong?: readonly string[]; form?: URLSearchParams } = {},
    ): Promise<{ status: number; made: Made }> {
      const facts: GateSight = {
        gate: gate.id,
        rule: gate.rule,
        why,
        title,
        to,
        seal: forms.make(gate.id),
        termsFile: await termsFileOf(gate),
        fault,
        wrong,
        given: name => form?.get(name) ?? '',
      }
      return { status: 403, made: await page(title, speech => gatePageHtml(facts, speech)) }
    },
  }
}
export type GatePages = ReturnType<typeof createGatePages>
