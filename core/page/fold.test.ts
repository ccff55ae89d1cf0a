import { describe, expect, it } from 'vitest'
import { problemsOf } from '../testing/html'
import { NEW_SITE, PDF_FACTS, knowing, button, pageOf, words } from '../testing/pages'
import { everyBlock } from './blocks'
import { changesBetween } from './changes'
import { renderPage } from './document'
import { pageDocumentSchema, type Block, type FoldBlock, type PlainBlock } from './schema'
import { mapTargets, placementsOf } from './targets'

const known = knowing(PDF_FACTS)
const fold = (question: string, ...answer: PlainBlock[]): FoldBlock => ({
  type: 'fold',
  content: [{ type: 'foldTitle', ...(question && { content: [{ type: 'text' as const, text: question }] }) }, ...(answer as [PlainBlock])],
})
const html = (...blocks: Block[]) => renderPage(NEW_SITE, { slug: 'x', title: 'X', description: '', document: pageOf(...blocks) }, known)

describe('a fold-out', () => {
  const asked = fold('How hot? <1300', words('As hot as it takes.'), button())

  // HTML, the details element: it opens and shuts without script.
  it('is a details element, valid, its question escaped, what is in it whole', async () => {
    const page = html(asked)
    expect(page).toContain('<details class="tr-fold"><summary>How hot? &lt;1300</summary>\n<p>As hot as it takes.</p>')
    expect(page).toContain('href="/files/list.pdf')
    expect(await problemsOf(page)).toEqual([])
    expect(pageDocumentSchema.parse(pageOf(asked))).toEqual(pageOf(asked))
  })

  it('without a question shows what is in it, without an answer nothing', () => {
    expect(html(fold('', words('Plain.')))).toMatch(/<p>Plain\.<\/p>/)
    expect(html(fold('', words('Plain.')))).not.toContain('<details')
    expect(html(fold('Why?', { type: 'paragraph', attrs: { ghost: 'Because' } }))).not.toContain('Why?')
  })

  it('has its places known, led elsewhere and taken off like any other, and keeps its question', () => {
    const document = pageOf(asked)
    expect(placementsOf(document).map(({ id }) => id)).toEqual(['aaaaaaaaaa'])
    const led = mapTargets(document, () => ({ kind: 'page', id: 'p' }))
    expect([...everyBlock(led)].find(block => block.type === 'downloadButton')).toMatchObject({
      attrs: { target: { kind: 'page', id: 'p' } },
    })
    const taken = mapTargets(pageOf(fold('Only this?', button())), () => 'remove')
    expect(taken.content[0]).toMatchObject({ content: [{ type: 'foldTitle', content: [{ text: 'Only this?' }] }, { type: 'paragraph' }] })
    expect(pageDocumentSchema.safeParse(taken).success).toBe(true)
  })

  it('is told among the changes by its question', () => {
    const told = changesBetween({ title: 'X', document: pageOf(words('A')) }, { title: 'X', document: pageOf(words('A'), asked) })
    expect(told.map(({ what }) => what)).toEqual(['fold-out “How hot? <1300”'])
  })
})

it('two columns share their room as was chosen', () => {
  const column = { type: 'column' as const, content: [words('A')] }
  expect(html({ type: 'columns', attrs: { share: 'first' }, content: [column, column] })).toContain(
    'class="tr-columns tr-columns-2 tr-share-first"',
  )
  expect(html({ type: 'columns', content: [column, column] })).toContain('class="tr-columns tr-columns-2"')
})
