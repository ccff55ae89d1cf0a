import type { Speech } from '../language/speech'
import { searchFormHtml } from '../search/searchForm'
import { searchHref } from '../search/searchQuery'
import { escapeHtml } from '../page/escape'
import type { TargetFacts } from '../page/placeholders'
import { fileTableHtml } from './fileTable'
import { galleryHtml } from './gallery'
import { PICK, linkHtml, partHtml, tickHtml, type Writing } from './item'
import { itemsHtml } from './items'
import { filesListed, type Listing } from './listing'
import { SIDE_BY_SIDE, type Layout, type Shown } from './shown'

type Files = Listing<TargetFacts>

/** The part of an address that asks for all files of a shelf as one zip. */
export const TAKE_ALL = 'all'
/** More ticked files would make an address longer than 8 kB, which servers refuse (common practice): they are sent as a form instead. */
const MOST_IN_ADDRESS = 150

/** The root-relative address of a shelf's zips; which files, its query says. */
export const shelfHref = (placement: string) => `/shelves/${placement}`

/** What an address or a form asks a shelf for; robust against anything typed there. */
export function picksOf(query: URLSearchParams): string[] | typeof TAKE_ALL {
  return query.has(TAKE_ALL) ? TAKE_ALL : [...new Set(query.getAll(PICK))]
}

/** Files and folders in the order a shelf shows them: the library knows no language, and titles are looked for by that of the site. */
function inOrder({ files, folders, pinned = 0, ...rest }: Files, byTitle: boolean, speech: Speech): Files {
  const { compare } = speech
  const sorted = folders.toSorted((a, b) => compare(a.name, b.name))
  const others = files.slice(pinned)
  return {
    ...rest,
    files: [...files.slice(0, pinned), ...(byTitle ? others.toSorted((a, b) => compare(a.title, b.title)) : others)],
    folders: sorted.map(({ name, id, ...inside }) => ({ name, id, ...inOrder(inside, byTitle, speech) })),
  }
}

/**
 * Files, then the folders beside them, each to be folded out without script (HTML, `details`). Each has an address of its own: who comes
 * by it finds that folder and those around it open (HTML, ancestor revealing).
 */
function listingHtml({ files, folders }: Files, filesHtml: (files: TargetFacts[]) => string, open: boolean, writing: Writing): string {
  const {
    attrs: { placement },
    speech,
  } = writing
  const folded = folders.map(folder => {
    const count = speech.say('fileCount', { count: filesListed(folder).length })
    const id = `in-${placement}-${folder.id}`
    const here = `<a class="tr-here" id="${id}" href="#${id}" aria-label="${escapeHtml(speech.say('addressOf', { name: folder.name }))}">#</a>`
    return `<details class="tr-fold tr-folder"${open ? ' open' : ''}><summary><span>${escapeHtml(folder.name)}</span> <span class="tr-note">${escapeHtml(count)}</span></summary>
${here}${listingHtml(folder, filesHtml, open, writing)}
</details>`
  })
  return [...(files.length ? [filesHtml(files)] : []), ...folded].join('\n')
}

const LISTS: Record<Layout, (files: TargetFacts[], writing: Writing) => string> = {
  lines: itemsHtml,
  tiles: itemsHtml,
  cards: itemsHtml,
  compact: itemsHtml,
  table: fileTableHtml,
  pictures: (files, writing) =>
    galleryHtml(
      files,
      writing.attrs.placement,
      {
        link: file => linkHtml(file, writing, partHtml('facts', file, writing)),
        tick: file => (writing.pick ? tickHtml(file, writing.speech) : ''),
      },
      writing.speech,
    ),
}

/** What says how close its lines are, how large its icons, and how many items stand side by side. */
function dressOf({ layout, density, icons, columns: { wide, narrow } }: Shown): string {
  const names = ['tr-shelf', ...(density === 'even' ? [] : [`tr-${density}`]), ...(icons === 'medium' ? [] : [`tr-signs-${icons}`])]
  const side = SIDE_BY_SIDE.includes(layout) ? ` style="--wide:${wide};--narrow:${narrow}"` : ''
  return `class="${names.join(' ')}"${side}`
}

/**
 * A listing of files, each with its link. Where visitors may pick, it is a plain form that asks for a zip of what
 * they ticked; nothing to pick among, no form.
 */
export function renderShelf(listed: Files, given: Omit<Writing, 'pick'>): string {
  const { attrs, shown, speech } = given
  const count = filesListed(listed).length
  if (!count) return ''
  const { placement, source } = attrs
  const asked = source?.kind === 'files' || !source ? undefined : source
  const pick = attrs.pick && count > 1
  const writing: Writing = { ...given, pick }
  const filesHtml = (files: TargetFacts[]) => LISTS[shown.layout](files, writing)
  const rows = listingHtml(inOrder(listed, asked?.order === 'title', speech), filesHtml, asked?.below === 'open', writing)
  const search = attrs.search ? `${searchFormHtml(`tr-${placement}`, '', '', { in: placement, at: placement }, speech)}\n` : ''
  const { total } = listed
  const onward = total
    ? `\n<p><a class="tr-link" href="${escapeHtml(searchHref({ in: placement, at: placement }))}">${escapeHtml(speech.say('seeAll', { count: total }))}</a></p>`
    : ''
  if (!pick) return `${search}<div ${dressOf(shown)}>\n${rows}\n</div>${onward}`
  const wears = `class="tr-button ${given.buttonClass()}"`
  return `${search}<form ${dressOf(shown)} action="${shelfHref(placement)}" method="${count > MOST_IN_ADDRESS ? 'post' : 'get'}">
${rows}
<p class="tr-take"><button type="submit" ${wears}>${escapeHtml(speech.say('ticked'))}</button> <button type="submit" ${wears} name="${TAKE_ALL}">${escapeHtml(speech.say('all', { count: total ?? count }))}</button></p>
</form>${onward}`
}
