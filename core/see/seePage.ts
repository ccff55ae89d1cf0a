import { opensInBrowser, typeTag } from '../files/mediaType'
import { asksWords } from '../gate/asks'
import type { Speech } from '../language/speech'
import { escapeHtml } from '../page/escape'
import { fileHref, filePath, pictureHref } from '../page/href'
import { newButton } from '../page/insert'
import type { PageRenderer } from '../page/html'
import { imageHtml } from '../page/picture'
import type { TargetFacts } from '../page/placeholders'
import { contentsHtml } from './contentsHtml'
import { FIRST_MARK, markedHtml } from './marked'
import { passageHtml } from './passageHtml'
import { LONGEST_FIND, seeHref, seePath, type SeeQuery } from './seeAddress'
import type { Box, FoundPart, SeeFacts, SeenPage, Sight } from './sight'

/** Widths, in pixels, that pages of documents are served in. */
export const LEAF_WIDTHS = [640, 960, 1440] as const
/** How wide a page is shown, for browsers to choose by (HTML, "sizes" of img). */
const LEAF_SIZES = '(max-width:67rem) 100vw, 64rem'

/** What is written with the rest of it, and which way on leads from it. */
interface Writing {
  facts: SeeFacts
  query: SeeQuery
  terms: string[]
  speech: Speech
  say: (...said: Parameters<Speech['say']>) => string
}

/** Type, size, length and age of a file, in a line. */
export function factsLine(file: TargetFacts, speech: Speech): string {
  if (file.asks) return [typeTag(file.mediaType), asksWords(file.asks, speech), speech.day(file.changed)].join(' · ')
  return [
    typeTag(file.mediaType),
    speech.size(file.size),
    ...(file.pages === undefined ? [] : [speech.say('pageCount', { count: file.pages })]),
    ...(file.edition > 1 ? [speech.say('edition', { number: file.edition })] : []),
    speech.day(file.changed),
  ].join(' · ')
}

/** What is asked for besides stays as it is. */
const keptHtml = (kept: Record<string, string | number | undefined>) =>
  Object.entries(kept)
    .filter(([, value]) => value)
    .map(([name, value]) => `<input type="hidden" name="${name}" value="${escapeHtml(String(value))}">`)
    .join('')

function findHtml({ facts: { file }, query, say }: Writing): string {
  return `<form class="tr-seek" action="${escapeHtml(seePath(file.handle))}" method="get" role="search">
<label for="tr-find">${say('findInFile')}</label>
<input class="tr-field" id="tr-find" type="search" name="find" value="${escapeHtml(query.find)}" maxlength="${LONGEST_FIND}">
<button class="tr-key-button" type="submit">${say('find')}</button>${keptHtml({ at: query.at })}
</form>`
}

function foundHtml({ facts, query, terms, say }: Writing, marks: number): string {
  if (!query.find) return ''
  const {
    file,
    found: { parts, cut },
  } = facts
  if (!parts.length && !marks) {
    return `<p class="tr-said" role="status">${terms.length ? say('notInFile', { words: query.find }) : say('noWordsAsked')}</p>`
  }
  const shownPage = facts.sight.kind === 'page' ? facts.sight.number : undefined
  const lineHtml = ({ part, page, passage }: FoundPart) => {
    const name = page === undefined ? part : say('pageNumber', { number: page })
    const led =
      page === undefined
        ? escapeHtml(name)
        : `<a class="tr-link" href="${escapeHtml(seeHref(file.handle, { page, find: query.find, at: query.at }))}"${page === shownPage ? ' aria-current="page"' : ''}>${escapeHtml(name)}</a>`
    return `<li>${led}${name && ' '}<span class="tr-passage">${passageHtml(passage)}</span></li>`
  }
  const more = cut ? `\n<p class="tr-said">${say('goesOn')}</p>` : ''
  const onward = marks ? `\n<p><a class="tr-link" href="#${FIRST_MARK}">${say('toFirstPlace')}</a></p>` : ''
  // What is marked below is not told twice.
  const list = parts.length && !marks ? `\n<ol class="tr-found" tabindex="0">\n${parts.map(lineHtml).join('\n')}\n</ol>` : ''
  return `<section class="tr-finds" aria-label="${say('inFile', { words: query.find })}">\n<p role="status">${say('inFile', { words: query.find })}</p>${list}${more}${onward}\n</section>`
}

/** From page to page, or to any of them. */
function leafHtml({ facts: { file }, query: { find, at }, say }: Writing, { number, count }: SeenPage, place: 'above' | 'below'): string {
  if (count < 2) return ''
  const to = (page: number, rel: 'prev' | 'next') =>
    page >= 1 && page <= count
      ? `<a class="tr-link" rel="${rel}" href="${escapeHtml(seeHref(file.handle, { page, find, at }))}">${say(rel === 'prev' ? 'pageBefore' : 'pageAfter')}</a>`
      : '<span></span>'
  const jump =
    place === 'above'
      ? `<form class="tr-seek" action="${escapeHtml(seePath(file.handle))}" method="get"><label for="tr-number">${say('toPage')}</label> <input class="tr-field tr-number" id="tr-number" type="number" name="page" min="1" max="${count}" value="${number}"> <span>${say('ofCount', { count })}</span> <button class="tr-key-button" type="submit">${say('go')}</button>${keptHtml({ find, at })}</form>`
      : `<span>${say('pageOf', { number, count })}</span>`
  return `<nav class="tr-leafing" aria-label="${say(place === 'above' ? 'pagesOf' : 'pagesOfBelow', { title: file.title })}">${to(number - 1, 'prev')}${jump}${to(number + 1, 'next')}</nav>`
}

/** Marks over a picture, in its own pixels. */
const marksHtml = (marks: Box[], width: number, height: number) =>
  marks.length
    ? `<svg class="tr-marks" viewBox="0 0 ${width} ${height}" preserveAspectRatio="none" aria-hidden="true">${marks
        .map(
          box =>
            `<rect x="${Math.round(box.x * width)}" y="${Math.round(box.y * height)}" width="${Math.round(box.width * width)}" height="${Math.round(box.height * height)}"/>`,
        )
        .join('')}</svg>`
    : ''

/** A page as a picture, with its words for those who do not see it or want to take some of them along. */
function pageHtml(writing: Writing, seen: SeenPage): string {
  const { facts, terms, query, say } = writing
  const { file } = facts
  const { number, picture, marks, words } = seen
  const alt = say('pictureOf', { number, title: file.title })
  const drawn = picture
    ? `<figure class="tr-leaf"><img src="${escapeHtml(pictureHref(file, 960, number))}" srcset="${LEAF_WIDTHS.map(width => `${escapeHtml(pictureHref(file, width, number))} ${width}w`).join(', ')}" sizes="${LEAF_SIZES}" width="${picture.width}" height="${picture.height}" alt="${alt}" fetchpriority="high">${marksHtml(marks, picture.width, picture.height)}</figure>`
    : `<p class="tr-said">${say('notDrawn')}</p>`
  const written = words
    ? `<details class="tr-fold"${query.find || !picture ? ' open' : ''}><summary>${say('wordsOfPage')}</summary>\n<div class="tr-written tr-plain">${markedHtml(escapeHtml(words), terms).html}</div>\n</details>`
    : `<p class="tr-said">${say('noWords')}</p>`
  return [leafHtml(writing, seen, 'above'), drawn, leafHtml(writing, seen, 'below'), written].filter(Boolean).join('\n')
}

function sheetsHtml({ facts: { file, sight }, query, say }: Writing): string {
  if (sight.kind !== 'contents' || sight.contents.kind !== 'sheets' || sight.contents.sheets.length < 2) return ''
  const links = sight.contents.sheets.map(
    ({ name }, index) =>
      `<li><a class="tr-link" href="${escapeHtml(seeHref(file.handle, { ...query, sheet: index + 1 }))}"${index + 1 === query.sheet ? ' aria-current="page"' : ''}>${escapeHtml(name)}</a></li>`,
  )
  return `<nav aria-label="${say('sheets')}"><ul class="tr-sheets">${links.join('')}</ul></nav>`
}

/** What is in the file, and how many places in it are marked that were looked for. */
function sightHtml(writing: Writing, sight: Sight): { html: string; marks: number } {
  const { facts, query, terms, speech, say } = writing
  const { file } = facts
  const address = `${escapeHtml(filePath(file.handle))}?open`
  switch (sight.kind) {
    case 'page':
      return { html: pageHtml(writing, sight), marks: 0 }
    case 'picture':
      return {
        html: `<figure class="tr-leaf">${imageHtml(file, { alt: file.description || file.title, sizes: LEAF_SIZES, className: 'tr-image' }).replace(' loading="lazy"', '')}</figure>`,
        marks: 0,
      }
    case 'sound':
      return { html: `<audio class="tr-player" controls preload="metadata" src="${address}"></audio>`, marks: 0 }
    case 'film': {
      const still = file.picture ? ` poster="${escapeHtml(pictureHref(file, 960))}"` : ''
      return { html: `<video class="tr-player" controls preload="metadata" src="${address}"${still}></video>`, marks: 0 }
    }
    case 'contents': {
      const { html, count } = markedHtml(contentsHtml(sight.contents, file.title, query.sheet, speech), terms)
      return { html: [sheetsHtml(writing), html].filter(Boolean).join('\n'), marks: count }
    }
    case 'none': {
      const first = file.picture
        ? `<figure class="tr-leaf">${imageHtml(file, { alt: '', sizes: LEAF_SIZES, className: 'tr-image' })}</figure>\n`
        : ''
      return { html: `${first}<p class="tr-said">${say('noView')}</p>`, marks: 0 }
    }
  }
}

function editionsHtml({ facts: { file, editions }, speech, say }: Writing): string {
  if (!editions.length) return ''
  const lines = editions.map(({ number, created }) => {
    const name = speech.say('edition', { number })
    return `<li><a class="tr-link" href="${escapeHtml(filePath(file.handle))}?save&amp;edition=${number}">${escapeHtml(name)}</a>, ${escapeHtml(speech.day(created))}</li>`
  })
  return `<section>\n<h2>${say('otherEditions')}</h2>\n<ul>${lines.join('')}</ul>\n</section>`
}

function besideHtml({ facts: { beside }, speech, say }: Writing): string {
  if (!beside?.files.length) return ''
  const lines = beside.files.map(
    file =>
      `<li><a class="tr-link" href="${escapeHtml(file.see ? seeHref(file.handle) : filePath(file.handle))}">${escapeHtml(file.title)}</a> <span class="tr-said">${escapeHtml(typeTag(file.mediaType))}, ${escapeHtml(speech.size(file.size))}</span></li>`,
  )
  return `<section>\n<h2>${say('alsoIn', { name: beside.folder })}</h2>\n<ul>${lines.join('')}</ul>\n</section>`
}

/** What is searched by its words; pictures and films have none. */
const isWritten = ({ kind }: Sight) => kind === 'page' || kind === 'contents'

/** The page on which visitors look at a file before they take it: complete HTML that runs no script. */
export function seePageHtml(facts: SeeFacts, query: SeeQuery, renderer: PageRenderer, speech: Speech): string {
  const say: Writing['say'] = (key, values) => escapeHtml(speech.say(key, values))
  const writing: Writing = { facts, query, terms: facts.terms, speech, say }
  const { file, sight } = facts
  const { html, marks } = sightHtml(writing, sight)
  const get = { ...newButton({ kind: 'file', id: file.id }, speech.say('download')), action: 'save' as const, placement: query.at ?? '' }
  const open = opensInBrowser(file.mediaType)
    ? `\n<p><a class="tr-link" href="${escapeHtml(fileHref(file, 'here', query.at ?? ''))}">${say('openIt')}</a></p>`
    : ''
  return [
    `<h1>${escapeHtml(file.title)}</h1>`,
    `<p class="tr-facts">${escapeHtml(factsLine(file, speech))}</p>`,
    file.description && `<p>${escapeHtml(file.description)}</p>`,
    `<div class="tr-get">\n${renderer.blocks([{ type: 'downloadButton', attrs: get }])}${open}\n</div>`,
    isWritten(sight) && findHtml(writing),
    foundHtml(writing, marks),
    `<div class="tr-sight">\n${html}\n</div>`,
    editionsHtml(writing),
    besideHtml(writing),
  ]
    .filter(Boolean)
    .join('\n')
}
