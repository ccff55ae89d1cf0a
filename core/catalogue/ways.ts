import type { Block } from '../page/schema'
import { newButton, newPicture } from '../page/insert'
import { fieldOf } from './catalogue'
import { BETWEEN, OWN_PAGE } from './bind'
import { TITLE, type Field } from './field'
import type { ListAttrs } from './listAttrs'

const field = (id: string) => ({ type: 'field' as const, attrs: { field: id } })

/** The fields that stand in a list where nothing is said of it. */
export const fieldsOfList = ({ fields: chosen }: Pick<ListAttrs, 'fields'>, fields: Field[]): Field[] => {
  const asked = chosen.flatMap(id => fieldOf(fields, id) ?? [])
  return asked.length ? asked : fields.filter(({ listed, kind }) => listed && kind !== 'pictures' && kind !== 'files')
}

const titleLine = (paged: boolean): Block => {
  const name = field(TITLE)
  const link = {
    type: 'downloadLink' as const,
    attrs: { placement: 'entrytitle0', target: { kind: 'field' as const, field: OWN_PAGE }, action: 'here' as const, saveAs: '' },
  }
  return { type: 'heading', attrs: { level: 3 }, content: [paged ? { ...name, marks: [link] } : name] }
}

const pictureOf = (fields: Field[], paged: boolean): Block[] => {
  const pictured = fields.find(({ kind }) => kind === 'picture')
  if (!pictured) return []
  return [
    {
      type: 'picture',
      attrs: {
        ...newPicture(null),
        placement: 'entrypicture0',
        field: pictured.id,
        action: 'here',
        target: paged ? { kind: 'field', field: OWN_PAGE } : null,
      },
    },
  ]
}

/** A card as it starts out: picture, name, what it is, and a button for each file. */
export function firstCard(fields: Field[], paged: boolean): Block[] {
  const about = fields.find(({ id, kind }) => id !== TITLE && kind === 'text') ?? fields.find(({ kind }) => kind === 'longText')
  const priced = fields.find(({ kind }) => kind === 'money')
  const files = fields.filter(({ kind }) => kind === 'file').slice(0, 2)
  return [
    ...pictureOf(fields, paged),
    titleLine(paged),
    ...(about ? [{ type: 'paragraph' as const, content: [field(about.id)] }] : []),
    ...(priced ? [{ type: 'paragraph' as const, content: [{ ...field(priced.id), marks: [{ type: 'bold' as const }] }] }] : []),
    ...files.map(({ id, name }) => ({
      type: 'downloadButton' as const,
      attrs: { ...newButton({ kind: 'field', field: id }, name), look: 'rim' },
    })),
  ]
}

/** What each entry is in a way of standing that is not laid out by its owner. */
export function templateOf(attrs: ListAttrs, card: Block[], fields: Field[], paged: boolean): Block[] {
  if (attrs.way === 'cards') return card
  if (attrs.way === 'tiles') return [...pictureOf(fields, paged), titleLine(paged)]
  const told = fieldsOfList(attrs, fields).filter(({ id, kind }) => id !== TITLE && kind !== 'picture' && kind !== 'longText')
  const facts = told.flatMap(({ id }, at) => [...(at ? [{ type: 'text' as const, text: BETWEEN }] : []), field(id)])
  return [titleLine(paged), ...(facts.length ? [{ type: 'paragraph' as const, content: facts }] : [])]
}

/** The page of an entry as it starts out: everything it has, each in the way that suits it. */
export function firstLayout(fields: Field[]): Block[] {
  const told = fields.filter(({ id, kind }) => id !== TITLE && !['longText', 'picture', 'pictures', 'file', 'files'].includes(kind))
  const [pictured] = fields.filter(({ kind }) => kind === 'picture')
  const long = fields.filter(({ kind }) => kind === 'longText')
  const files = fields.filter(({ kind }) => kind === 'file')
  const several = fields.filter(({ kind }) => kind === 'files' || kind === 'pictures')
  const words: Block[] = [
    ...long.map(({ id }) => ({ type: 'paragraph' as const, content: [field(id)] })),
    ...told.map(({ id, name }) => ({
      type: 'paragraph' as const,
      content: [{ type: 'text' as const, text: `${name}: `, marks: [{ type: 'bold' as const }] }, field(id)],
    })),
    ...files.map(({ id, name }, at) => ({
      type: 'downloadButton' as const,
      attrs: { ...newButton({ kind: 'field', field: id }, name), look: at ? 'rim' : 'slab' },
    })),
  ]
  const line: Block = { type: 'paragraph' }
  const picture: Block | undefined = pictured && { type: 'picture', attrs: { ...newPicture(null), field: pictured.id } }
  const blocks: Block[] = [
    ...(picture && words.length
      ? [
          {
            type: 'columns' as const,
            attrs: { share: 'even' as const },
            content: [words, [picture]].map(content => ({ type: 'column' as const, content })),
          } as Block,
        ]
      : picture
        ? [picture]
        : words),
    ...several.map(({ id }) => ({ type: 'paragraph' as const, content: [field(id)] })),
  ]
  return blocks.length ? blocks : [line]
}
