import type { FirstFacts, FirstPagesMade } from '../../../core/site/firstFacts'
import { firstPages } from '../../../core/site/firstPages'
import { slugFromTitle } from '../../../core/page/slug'
import type { PageDocument } from '../../../core/page/schema'
import type { LibraryService } from '../library/library'
import type { PageService } from '../pages/pages'
import type { SiteService } from './site'

/** Nothing was written there, nor is it asked for. */
const isBlank = ({ content }: PageDocument) => content.every(block => block.type === 'paragraph' && !block.attrs?.ghost && !block.content)

/** The first pages of a site, made of what its owner says of the shop. */
export function createFirstPages({
  pages,
  site,
  library,
}: {
  pages: PageService
  site: SiteService
  library: Pick<LibraryService, 'get'>
}) {
  /** Writes on a page that is still empty. @returns whether it was */
  async function fill(id: string, document: PageDocument, title?: string): Promise<boolean> {
    const page = await pages.get(id)
    if (!isBlank(page.draft) || isBlank(document)) return false
    await pages.saveDraft(id, { title: title ?? page.title, draft: document, revision: page.revision })
    return true
  }

  return {
    /**
     * Writes them as far as they are still empty: what somebody wrote is never touched, and where it was broken off it goes on when it is
     * asked for again.
     *
     * @throws Problem where the file is not there, or a page was written on at the same time
     */
    async make(facts: FirstFacts): Promise<FirstPagesMade> {
      const title = facts.file === null ? '' : (await library.get(facts.file)).title
      const { home, downloads, foot } = firstPages(facts, title)
      await site.set({ name: facts.name, language: facts.language })
      const items = await pages.list()
      const homeId =
        items.find(({ slug, edge }) => slug === '' && !edge)?.id ?? (await pages.create({ title: home.title }, { home: true })).id
      const slug = slugFromTitle(downloads.title)
      const downloadsId = items.find(page => page.slug === slug)?.id ?? (await pages.create({ title: downloads.title, slug })).id
      const written: string[] = []
      if (await fill(homeId, home.document, home.title)) written.push(homeId)
      if (await fill(downloadsId, downloads.document)) written.push(downloadsId)
      if (await fill('foot', foot)) written.push('foot')
      return { written, home: homeId }
    },
  }
}
