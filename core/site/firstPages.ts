import type { Language } from '../language/languages'
import { newButton, newCard } from '../page/insert'
import type { Block, Inline, PageDocument, PlainBlock } from '../page/schema'
import type { FirstFacts } from './firstFacts'

/** What the first pages say besides the shop's own words; they are the owner's to change from then on. */
const HEADINGS: Record<Language, { hours: string; contact: string; downloads: string }> = {
  en: { hours: 'Opening hours', contact: 'Contact', downloads: 'Downloads' },
  de: { hours: 'Öffnungszeiten', contact: 'Kontakt', downloads: 'Downloads' },
  fr: { hours: 'Heures d’ouverture', contact: 'Contact', downloads: 'Téléchargements' },
  es: { hours: 'Horario', contact: 'Contacto', downloads: 'Descargas' },
  it: { hours: 'Orari di apertura', contact: 'Contatti', downloads: 'Download' },
  nl: { hours: 'Openingstijden', contact: 'Contact', downloads: 'Downloads' },
  pl: { hours: 'Godziny otwarcia', contact: 'Kontakt', downloads: 'Do pobrania' },
  pt: { hours: 'Horário', contact: 'Contacto', downloads: 'Descarregar' },
}
export const firstHeadings = (language: Language) => HEADINGS[language]

const p = (text: string): PlainBlock => ({ type: 'paragraph', content: [{ type: 'text', text }] })
const ghost = (words: string): PlainBlock => ({ type: 'paragraph', attrs: { ghost: words } })
const h2 = (text: string): PlainBlock => ({ type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text }] })
const h3 = (text: string): PlainBlock => ({ type: 'heading', attrs: { level: 3 }, content: [{ type: 'text', text }] })
const pageOf = (...content: Block[]): PageDocument => ({ type: 'doc', content: content.length ? content : [{ type: 'paragraph' }] })

const lines = (text: string): string[] =>
  text
    .split(/\r?\n/)
    .map(line => line.trim())
    .filter(Boolean)

function contactOf({ phone, email }: FirstFacts): PlainBlock[] {
  const button = (target: Parameters<typeof newButton>[0], label: string): PlainBlock => ({
    type: 'downloadButton',
    attrs: newButton(target, label, { look: 'strap', note: '' }),
  })
  return [
    ...(phone ? [button({ kind: 'phone', number: phone }, phone)] : []),
    ...(email ? [button({ kind: 'email', address: email }, email)] : []),
  ]
}

/** Lines of one paragraph; none of none. */
function oneBelowTheOther(texts: string[]): PlainBlock[] {
  const content = texts.flatMap((text, index): Inline[] => [...(index ? [{ type: 'hardBreak' as const }] : []), { type: 'text', text }])
  return content.length ? [{ type: 'paragraph', content }] : []
}

/** Two halves side by side, one alone as it is, none at all. */
function sideBySide(...halves: PlainBlock[][]): Block[] {
  const filled = halves.filter(half => half.length > 1)
  if (filled.length < 2) return filled.flat()
  return [{ type: 'columns', content: filled.map(content => ({ type: 'column' as const, content })) }]
}

/**
 * The first pages of a shop, which carry its first file: a home page, a page of downloads, and the foot of every page. What the owner left
 * out is not there, or is asked for in ghost text, which visitors do not get.
 *
 * @param title of the file, in words
 */
export function firstPages(facts: FirstFacts, title: string) {
  const { about, file, language } = facts
  const words = HEADINGS[language]
  const target = file === null ? null : ({ kind: 'file', id: file } as const)
  const button: PlainBlock[] = target ? [{ type: 'downloadButton', attrs: newButton(target, title) }] : []
  const opening: Block = {
    type: 'section',
    attrs: { tone: 'tint', padding: 'medium', width: 'text' },
    content: [...(about ? lines(about).map(p) : [ghost('What the shop is, for whom, and since when: two sentences.')]), ...button],
  }
  const reach = (heading: typeof h2) =>
    sideBySide([heading(words.hours), ...oneBelowTheOther(lines(facts.hours))], [heading(words.contact), ...contactOf(facts)])
  return {
    home: { title: facts.name, document: pageOf(opening, ...reach(h2)) },
    downloads: {
      title: words.downloads,
      document: pageOf(
        ghost('What lies here, and what may be done with it: one sentence.'),
        ...(target ? [{ type: 'fileCard' as const, attrs: { ...newCard(target), look: 'rim' } }] : []),
      ),
    },
    foot: pageOf(...reach(h3)),
  }
}
