import { createHash } from 'node:crypto'
import { mkdir, rename, rm, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { crc32 } from 'node:zlib'

import { buildWorkers } from '../server/buildWorkers'
import { ROOT } from '../server/root'
import { openTrough, type Trough } from '../server/trough'
import { makeBundles } from './bundles'
import { makeCatalogues, makeLayouts, makeSiteValues, type CatalogueIds } from './catalogues'
import { addDownloads } from './downloads'
import { makeEdges } from './edges'
import { FOLDERS, makeFiles } from './files'
import { makeGates } from './gates'
import { fillLetterbox } from './letterbox'
import type { FileIds } from './fileIds'
import { KILN_LOOK } from './look'
import { OWNER } from './owner'
import { makePeople } from './people'
import { SHEET_LOOK, makeIcons, makePages } from './pages'

async function makeFolders(library: Trough['library']): Promise<Map<string, string>> {
  const ids = new Map<string, string>()
  for (const { path, mark, description, ownOrder } of FOLDERS) {
    const parts = path.split('/')
    const { id } = await library.folders.create({ name: parts.pop()!, parent: ids.get(parts.join('/')) ?? null })
    await library.folders.change(id, { mark, description, ownOrder })
    ids.set(path, id)
  }
  return ids
}

async function fillLibrary(trough: Trough, folder: string): Promise<{ ids: FileIds; folders: Map<string, string> }> {
  const { library } = trough
  const folders = await makeFolders(library)
  const ids: FileIds = new Map()
  for (const [index, { name, folder: place, title, description, tags, editionOf, waits, by, bytes }] of (await makeFiles()).entries()) {
    const path = join(folder, 'incoming', `demo-${index}.part`)
    await writeFile(path, bytes)
    const file = await library.ingest({
      path,
      fileName: name,
      size: bytes.length,
      sha256: createHash('sha256').update(bytes).digest('hex'),
      crc32: crc32(bytes),
      folder: place ? folders.get(place) : null,
      editionOf: editionOf && ids.get(editionOf),
      by: by ?? OWNER.email,
    })
    if (title || description || tags) await library.change(file.id, { title, description, tags })
    if (waits) await library.showEdition(file.id, file.edition - 1)
    ids.set(name, file.id)
  }
  await makeBundles(trough, ids, folders)
  return { ids, folders }
}

/** Pages are made first and filled then: they lead to each other. */
async function fillPages(
  { pages, looks, shelfLooks, siteIcons, signposts }: Trough,
  files: FileIds,
  folders: Map<string, string>,
  catalogues: CatalogueIds,
): Promise<void> {
  const made = new Map<string, { id: string; revision: number }>()
  const kilnLook = (await looks.create(KILN_LOOK)).id
  const sheetLook = (await shelfLooks.create(SHEET_LOOK)).id
  for (const icon of makeIcons(folders)) await siteIcons.set(icon)
  const timetablePost = (await signposts.create({ title: 'Class timetable', file: files.get('timetable-2027-01.pdf')! })).id
  await signposts.create({ title: 'Current price list', file: files.get('price-list-2026-11.pdf')! })
  await signposts.create({ title: 'Summer school plan', file: null })
  for (const { title, slug } of makePages(files, folders, { glazePage: '', kilnLook, sheetLook, timetablePost, catalogues }))
    made.set(slug, await pages.create({ title, slug }, { home: slug === '' }))
  for (const { title, slug, description, document, picture, later } of makePages(files, folders, {
    glazePage: made.get('clay-and-glaze')!.id,
    kilnLook,
    sheetLook,
    timetablePost,
    catalogues,
  })) {
    const { id, revision: first } = made.get(slug)!
    const { revision } = await pages.saveDraft(id, { title, draft: document, revision: first })
    await pages.change(id, { description, ...(picture && { picture: files.get(picture)! }) })
    await pages.publish(id)
    if (later) await pages.saveDraft(id, { title, draft: { type: 'doc', content: [...document.content, ...later] }, revision })
  }
  for (const [edge, document] of Object.entries(makeEdges(files, made))) {
    const { title, revision } = await pages.get(edge)
    await pages.saveDraft(edge, { title, draft: document, revision })
    await pages.publish(edge)
  }
  // The site's name leads home.
  await pages.change(made.get('')!.id, { inMenu: false })
  await pages.change(made.get('privacy')!.id, { inMenu: false })
}

/** Builds the demo's data folder; complete, or not there at all. */
export async function buildDemo(folder: string): Promise<void> {
  const draft = `${folder}.new`
  await rm(draft, { recursive: true, force: true })
  await mkdir(draft, { recursive: true })
  const trough = await openTrough({ data: draft })
  try {
    await trough.account.create(OWNER.email, OWNER.password)
    await trough.site.set({ name: 'Marlpit Pottery Supply', address: 'https://www.marlpit.example', timeZone: 'Europe/London' })
    const { ids, folders } = await fillLibrary(trough, draft)
    const catalogues = await makeCatalogues(trough, ids)
    await makeSiteValues(trough)
    await fillPages(trough, ids, folders, catalogues)
    await makeLayouts(trough, catalogues)
    await makeGates(trough, ids, folders)
    await makePeople(trough, folders)
    await fillLetterbox(trough)
    await addDownloads(trough)
    await trough.reading.idle()
  } finally {
    await trough.close()
  }
  await rename(draft, folder)
}

const [, script, folder] = process.argv
if (script?.endsWith('demo/build.ts')) {
  // What reads the files runs in workers, which may not have been built yet.
  await buildWorkers(ROOT)
  await buildDemo(folder ?? 'demo-data')
}
