import sanitizeHtml from 'sanitize-html'

/** A heading of a document stands one level below the name of the file it is shown under. */
const LOWERED = Object.fromEntries([1, 2, 3, 4, 5].map(level => [`h${level}`, `h${level + 1}`]))

/** Letters that the pictures of one document take together as they stand in it; further ones are left out. */
const MOST_PICTURES = 4_000_000

/**
 * HTML of a document with nothing left in it but words, their structure, links that lead out by the web or by mail, and pictures that came
 * along with it: it runs nothing, asks for nothing, and looks like nothing but the page it is shown on.
 */
export function cleanHtml(html: string): string {
  let room = MOST_PICTURES
  return sanitizeHtml(html, {
    allowedTags: [
      ...['h1', 'h2', 'h3', 'h4', 'h5', 'h6', 'p', 'br', 'hr', 'ul', 'ol', 'li', 'dl', 'dt', 'dd', 'blockquote', 'pre', 'code'],
      ...['table', 'thead', 'tbody', 'tfoot', 'tr', 'th', 'td', 'caption'],
      ...['strong', 'b', 'em', 'i', 'u', 's', 'sub', 'sup', 'a', 'img'],
    ],
    allowedAttributes: { a: ['href'], img: ['src', 'alt'], td: ['colspan', 'rowspan'], th: ['colspan', 'rowspan', 'scope'], ol: ['start'] },
    allowedSchemes: ['https', 'http', 'mailto'],
    allowedSchemesByTag: { img: ['data'] },
    allowProtocolRelative: false,
    transformTags: {
      ...LOWERED,
      a: sanitizeHtml.simpleTransform('a', {}, true),
      // Who does not see a picture without words is not told of it.
      img: (tagName, { src = '', alt = '' }) => ({ tagName, attribs: { src, alt } }),
    },
    // A link to elsewhere in the document has lost its place; a picture without its bytes is none.
    exclusiveFilter: ({ tag, attribs: { src = '' } }) => {
      if (tag !== 'img') return false
      if (!src.startsWith('data:') || src.length > room) return true
      room -= src.length
      return false
    },
  })
}
