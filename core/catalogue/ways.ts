import type { Block, Inline } from '../page/schema'
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

const titleLine = (paged: boolean, level: 2 | 3 = 3): Block => {
  const name = field(TITLE)
  const link = {
    type: 'downloadLink' as const,
    attrs: { placement: 'entrytitle0', target: { kind: 'field' as const, field: OWN_PAGE }, action: 'here' as const, saveAs: '' },
  }
  return { type: 'heading', attrs: { level }, content: [paged ? { ...name, marks: [link] } : name] }
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

/** The field that says what an entry is, in sentences. */
const aboutOf = (fields: Field[]): Field | undefined =>
  fields.find(({ kind }) => kind === 'longText') ??
  fields.find(({ id, kind, name }) => id !== TITLE && kind === 'text' && /about|descri|detail|beschreib|info/i.test(name))

/** Facts in a line, parted where both are there. */
const factsLine = (facts: Field[]): Block[] =>
  facts.length
    ? [
        {
          type: 'paragraph',
          content: facts.flatMap(({ id }, at) => [...(at ? [{ type: 'text' as const, text: BETWEEN }] : []), field(id)]),
        },
      ]
    : []

/**
 * A card as it starts out: picture, name, what it is, and a button for each file.
 *
 * @param level of its heading: 2 where the list stands right below the title of its page
 */
export function firstCard(fields: Field[], paged: boolean, level: 2 | 3 = 3): Block[] {
  const about = aboutOf(fields)
  const priced = fields.find(({ kind }) => kind === 'money')
  const facts = fields.filter(({ kind }) => kind === 'choice' || kind === 'number' || kind === 'date' || kind === 'place').slice(0, 3)
  const files = fields.filter(({ kind }) => kind === 'file').slice(0, 2)
  return [
    ...pictureOf(fields, paged),
    titleLine(paged, level),
    ...factsLine(facts),
    // What is long stands on its own page.
    ...(about && about.kind === 'text' ? [{ type: 'paragraph' as const, content: [field(about.id)] }] : []),
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
  return [titleLine(paged), ...factsLine(told)]
}

const cell = (type: 'tableHeader' | 'tableCell', content: Inline[]) => ({ type, content: [{ type: 'paragraph' as const, content }] })

/** What there is to know of an entry, a row for each; rows of what is empty are left out when it is filled. */
const factsTable = (facts: Field[]): Block[] =>
  facts.length
    ? [
        {
          type: 'table',
          content: facts.map(({ id, name }) => ({
            type: 'tableRow',
            content: [cell('tableHeader', [{ type: 'text', text: name }]), cell('tableCell', [field(id)])],
          })),
        },
      ]
    : []

/** The page of an entry as it starts out: everything it has, each in the way that suits it. */
export function firstLayout(fields: Field[]): Block[] {
  const about = aboutOf(fields)
  const long = fields.filter(field => field.kind === 'longText' || field === about)
  const facts = fields.filter(
    field => field.id !== TITLE && field !== about && !['longText', 'picture', 'pictures', 'file', 'files'].includes(field.kind),
  )
  const pictured = fields.find(({ kind }) => kind === 'picture')
  const files = fields.filter(({ kind }) => kind === 'file')
  const several = fields.filter(({ kind }) => kind === 'files' || kind === 'pictures')
  const words: Block[] = [
    ...long.map(({ id }) => ({ type: 'paragraph' as const, content: [field(id)] })),
    ...factsTable(facts),
    ...files.map(({ id, name }, at) => ({
      type: 'downloadButton' as const,
      attrs: { ...newButton({ kind: 'field', field: id }, name), look: at ? 'rim' : 'slab' },
    })),
  ]
  const picture: Block | undefined = pictured && { type: 'picture', attrs: { ...newPicture(null), field: pictured.id } }
  const first: Block[] =
    picture && words.length
      ? [
          {
            type: 'columns',
            attrs: { share: 'even' },
            content: [words, [picture]].map(content => ({ type: 'column', content })),
          } as Block,
        ]
      : picture
        ? [picture]
        : words
  const blocks = [...first, ...several.map(({ id }): Block => ({ type: 'paragraph', content: [field(id)] }))]
  return blocks.length ? blocks : [{ type: 'paragraph' }]
}
