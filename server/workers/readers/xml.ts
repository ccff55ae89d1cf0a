import type { Readable } from 'node:stream'
import { SaxesParser } from 'saxes'
import { Unreadable } from './reader'

/** What is told of an XML document as it is read; names without their prefix. */
export interface XmlHandlers {
  open?: (name: string, attributes: Record<string, string>) => void
  close?: (name: string) => void
  text?: (text: string) => void
  /** more is wanted; left out, all is */
  wanted?: () => boolean
}

const local = (name: string) => name.slice(name.indexOf(':') + 1)

/**
 * Reads an XML stream piece by piece. Entities that the document declares itself are refused: expanding them
 * is how a small file becomes gigabytes (OWASP, XML External Entity Prevention).
 *
 * @param most bytes read before it is given up
 * @throws Unreadable where it is no well-formed XML, declares entities, or is larger than `most`
 */
export async function readXml(stream: Readable, handlers: XmlHandlers, most: number): Promise<void> {
  const parser = new SaxesParser()
  let failure: Unreadable | undefined
  parser.on('error', error => (failure ??= new Unreadable(`The document is damaged (${error.message}).`)))
  parser.on('doctype', doctype => {
    if (/<!ENTITY/i.test(doctype))
      failure ??= new Unreadable('The document defines entities of its own, as files made to overload a reader do. It was not opened.')
  })
  parser.on('opentag', tag =>
    handlers.open?.(
      local(tag.name),
      Object.fromEntries(Object.entries(tag.attributes).map(([name, value]) => [local(name), String(value)])),
    ),
  )
  parser.on('closetag', tag => handlers.close?.(local(tag.name)))
  parser.on('text', text => handlers.text?.(text))
  const decoder = new TextDecoder()
  let read = 0
  for await (const chunk of stream as AsyncIterable<Buffer>) {
    read += chunk.length
    if (read > most) throw new Unreadable(`The document opens to more than ${Math.round(most / 1e6)} MB. It was not read further.`)
    parser.write(decoder.decode(chunk, { stream: true }))
    if (failure) throw failure
    if (handlers.wanted && !handlers.wanted()) return
  }
  parser.write(decoder.decode()).close()
  if (failure) throw failure
}
