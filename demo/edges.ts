import { ON_AN_EDGE, newButton, newPicture } from '../core/page/insert'
import type { Block, PageDocument, PlainBlock, Target } from '../core/page/schema'
import type { Edge } from '../core/page/edges'
import type { FileIds } from './fileIds'

type Button = Extract<PlainBlock, { type: 'downloadButton' }>
const item = (target: Target, label: string): Button => ({
  type: 'downloadButton',
  attrs: { ...newButton(target, label, ON_AN_EDGE), action: target.kind === 'file' ? 'tab' : 'here' },
})
const heading = (text: string): PlainBlock => ({ type: 'heading', attrs: { level: 3 }, content: [{ type: 'text', text }] })
const line = (text: string): PlainBlock => ({ type: 'paragraph', content: [{ type: 'text', text }] })
const siteValue = (field: string): PlainBlock => ({ type: 'paragraph', content: [{ type: 'siteValue', attrs: { field } }] })

/** What stands on every page of the demo: a menu with a file in it, and the yard's hours with more to take along. */
export function makeEdges(files: FileIds, pages: Map<string, { id: string }>): Record<Edge, PageDocument> {
  const file = (name: string): Target => ({ kind: 'file', id: files.get(name)! })
  const page = (slug: string): Target => ({ kind: 'page', id: pages.get(slug)!.id })
  const columns: Block = {
    type: 'columns',
    content: [
      [heading('The yard'), siteValue('weekdays'), line('Saturday, nine to noon')],
      [
        heading('To take along'),
        item(file('timetable-2027-01.pdf'), 'Class timetable'),
        item(file('firing-chart-stoneware.pdf'), 'Firing chart'),
        item(file('joining-form.docx'), 'Joining form'),
      ],
      [
        heading('Ask us'),
        item({ kind: 'phone', number: '01632 960146' }, '01632 960146'),
        item({ kind: 'email', address: 'yard@marlpit.example' }, 'yard@marlpit.example'),
        item({ kind: 'address', href: 'https://maps.example/marlpit' }, 'On the map'),
        item(page('privacy'), 'What we keep of you'),
      ],
    ].map(content => ({ type: 'column', content })),
  }
  return {
    head: {
      type: 'doc',
      content: [
        { type: 'picture', attrs: { ...newPicture(files.get('marlpit-mark.svg')!), alt: 'Marlpit Pottery Supply', size: 'small' } },
        {
          type: 'buttonRow',
          attrs: { align: 'left' },
          content: [
            item(page('clay-and-glaze'), 'Clay & glaze'),
            item(page('kilns'), 'Kilns'),
            item(page('classes'), 'Classes'),
            item(page('guides'), 'Guides'),
            item(page('studio-photos'), 'Studio photos'),
            item(page('trade'), 'Trade'),
            item(file('price-list-2026-11.pdf'), 'Price list'),
          ],
        },
      ],
    },
    foot: { type: 'doc', content: [{ type: 'section', attrs: { tone: 'tint', padding: 'small', width: 'text' }, content: [columns] }] },
  }
}
