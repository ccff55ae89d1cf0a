import { z } from 'zod'
import type { Speech } from '../language/speech'
import type { Block, ButtonAttrs, PageDocument, PictureAttrs } from './schema'

/** What stands on every page: above what is its own, or below. */
export const EDGES = ['head', 'foot'] as const
export const edgeSchema = z.enum(EDGES)
export type Edge = z.infer<typeof edgeSchema>
/** What stands on many pages without being one: an edge, or what is laid out for every entry of a catalogue. */
export const pagePartSchema = z.enum([...EDGES, 'entry'])
export type PagePart = z.infer<typeof pagePartSchema>

/** The documents of the edges that are live. */
export type EdgeDocuments = Partial<Record<Edge, PageDocument>>

/** What a page is called in the menu, where it is listed by itself. */
export const menuTitle = ({ slug, title }: { slug: string; title: string }, speech: Speech): string =>
  slug === '' ? speech.say('home') : title

const isEmptyLine = (block: Block) => block.type === 'paragraph' && !block.content?.length

/** What there is to see on an edge: one that was never written on is one empty line. */
export const blocksOfEdge = (document: PageDocument | undefined): Block[] => (document?.content ?? []).filter(block => !isEmptyLine(block))

/**
 * The buttons of the head, alone or in rows, are items of the site's menu and stand beside its name; the first picture is the site's mark
 * and stands in the place of its name; all else stands below.
 */
export function splitHead(document: PageDocument | undefined): { mark?: PictureAttrs; items: ButtonAttrs[]; below: Block[] } {
  const items: ButtonAttrs[] = []
  const below: Block[] = []
  let mark: PictureAttrs | undefined
  for (const block of blocksOfEdge(document)) {
    if (block.type === 'picture' && !mark) mark = block.attrs
    else if (block.type === 'downloadButton') items.push(block.attrs)
    else if (block.type === 'buttonRow') items.push(...(block.content ?? []).map(({ attrs }) => attrs))
    else below.push(block)
  }
  return { mark, items, below }
}
