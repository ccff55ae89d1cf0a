import { typeTag } from '../files/mediaType'
import type { Speech } from '../language/speech'
import { searchFormHtml } from '../search/searchForm'
import { searchHref } from '../search/searchQuery'
import { escapeHtml } from './escape'
import { effectiveAction, fileDestination } from './destination'
import { galleryHtml } from './gallery'
import { filesListed, type Listing } from './listing'
import type { TargetFacts } from './placeholders'
import { MOST_ON_SHELF, type FolderSource, type ShelfAttrs } from './schema'

type Files = Listing<TargetFacts>

/** The parts of an address that ask for files of a shelf as one zip. */
export const PICK = 'pick'
export const TAKE_ALL = 'all'

/** The root-relative address of a shelf's zips; which files, its query says. */
export const shelfHref = (placement: string) => `/shelves/${placement}`

const SORTS = { title: 'title', newest: '-changed', own: 'own' } as const

/** The question to the library that gives the files of a shelf that lists a folder. */
export const shelfQuery = ({ id, order, below }: FolderSource) => ({
  folder: id,
  ...(below !== 'no' && { below: 'true' }),
  sort: SORTS[order],
  limit: MOST_ON_SHELF,
})

/** What an address asks a shelf for; robust against anything typed there. */
export function picksOf(query: URLSearchParams): string[] | typeof TAKE_ALL {
  return query.has(TAKE_ALL) ? TAKE_ALL : [...new Set(query.getAll(PICK))]
}

const tickHtml = (file: TargetFacts, speech: Speech) =>
  `<label class="tr-tick"><input type="checkbox" name="${PICK}" value="${escapeHtml(file.id)}"><span class="tr-spoken">${escapeHtml(speech.say('choose', { title: file.title }))}</span></label>`

const factsHtml = (file: TargetFacts, speech: Speech) =>
  `<span class="tr-note">${escapeHtml(typeTag(file.mediaType))}, ${escapeHtml(speech.size(file.size))}</span>`

/** The link to a file of a shelf, with what a click does. */
function linkHtml(file: TargetFacts, attrs: ShelfAttrs, speech: Speech): string {
  const destination = fileDestination(file)
  const action = effectiveAction(attrs.action, destination)
  const tab = action === 'tab' ? ' target="_blank" rel="noopener"' : ''
  const told = action === 'tab' ? speech.say('newTab') : action === 'see' ? speech.say('lookFirst') : ''
  const spoken = told && `<span class="tr-spoken"> (${escapeHtml(told)})</span>`
  return `<a class="tr-item" href="${escapeHtml(destination.href(action, attrs.placement))}"${tab}><span class="tr-label">${escapeHtml(file.title)}</span> ${factsHtml(file, speech)}${spoken}</a>`
}

const linesHtml = (files: TargetFacts[], attrs: ShelfAttrs, pick: boolean, speech: Speech): string =>
  `<ul>\n${files.map(file => `<li>${pick ? tickHtml(file, speech) : ''}${linkHtml(file, attrs, speech)}</li>`).join('\n')}\n</ul>`

/** Files and folders in the order a shelf shows them: the library knows no language, and titles are looked for by that of the site. */
function inOrder({ files, folders }: Files, byTitle: boolean, speech: Speech): Files {
  const { compare } = speech
  const sorted = folders.toSorted((a, b) => compare(a.name, b.name))
  return {
    files: byTitle ? files.toSorted((a, b) => compare(a.title, b.title)) : files,
    folders: sorted.map(({ name, ...inside }) => ({ name, ...inOrder(inside, byTitle, speech) })),
  }
}

/** Files, then the folders beside them, each to be folded out without script (HTML, `details`). */
function listingHtml({ files, folders }: Files, filesHtml: (files: TargetFacts[]) => string, open: boolean, speech: Speech): string {
  const folded = folders.map(folder => {
    const count = speech.say('fileCount', { count: filesListed(folder).length })
    return `<details class="tr-fold tr-folder"${open ? ' open' : ''}><summary><span>${escapeHtml(folder.name)}</span> <span class="tr-note">${escapeHtml(count)}</span></summary>
${listingHtml(folder, filesHtml, open, speech)}
</details>`
  })
  return [...(files.length ? [filesHtml(files)] : []), ...folded].join('\n')
}

/**
 * A listing of files, each with its link. Where visitors may pick, it is a plain form that asks for a zip of what
 * they ticked; nothing to pick among, no form.
 *
 * @param buttonClass asked for what its buttons wear, if it has any
 */
export function renderShelf(attrs: ShelfAttrs, listed: Files, buttonClass: () => string, speech: Speech): string {
  const count = filesListed(listed).length
  if (!count) return ''
  const folder = attrs.source?.kind === 'folder' ? attrs.source : undefined
  const pick = attrs.pick && count > 1
  const filesHtml = (files: TargetFacts[]) =>
    attrs.layout === 'pictures'
      ? galleryHtml(
          files,
          attrs.placement,
          { link: file => linkHtml(file, attrs, speech), tick: file => (pick ? tickHtml(file, speech) : '') },
          speech,
        )
      : linesHtml(files, attrs, pick, speech)
  const rows = listingHtml(inOrder(listed, folder?.order === 'title', speech), filesHtml, folder?.below === 'open', speech)
  const { placement } = attrs
  const search = attrs.search ? `${searchFormHtml(`tr-${placement}`, '', '', { in: placement, at: placement }, speech)}\n` : ''
  const { total } = listed
  const onward = total
    ? `\n<p><a class="tr-link" href="${escapeHtml(searchHref({ in: placement, at: placement }))}">${escapeHtml(speech.say('seeAll', { count: total }))}</a></p>`
    : ''
  if (!pick) return `${search}<div class="tr-shelf">\n${rows}\n</div>${onward}`
  const wears = `class="tr-button ${buttonClass()}"`
  return `${search}<form class="tr-shelf" action="${shelfHref(attrs.placement)}" method="get">
${rows}
<p class="tr-take"><button type="submit" ${wears}>${escapeHtml(speech.say('ticked'))}</button> <button type="submit" ${wears} name="${TAKE_ALL}">${escapeHtml(speech.say('all', { count: total ?? count }))}</button></p>
</form>${onward}`
}
