import { and, eq, isNotNull, isNull, or } from 'drizzle-orm'
import { waysToRead } from '../../../core/oldAddresses/path'
import { recognise } from '../../../core/page/recognise'
import type { Led } from '../../../core/page/led'
import type { Target } from '../../../core/page/schema'
import { Problem } from '../../../core/problem'
import { among } from '../../db/among'
import type { Database } from '../../db/connection'
import { files, oldAddresses, pages as pageTable, retiredHandles } from '../../db/schema'
import type { SiteService } from '../site/site'
import type { Signposts } from '../signposts/signposts'
import type { PageService } from '../pages/pages'

const FILES = '/files/'
const TO = '/to/'

/** A path without its escapes; as it is where they are none (RFC 3986, 2.1), for nothing is there. */
function decoded(path: string): string {
  try {
    return decodeURIComponent(path)
  } catch {
    return path
  }
}

/** Entries of catalogues by where they are, and by their identities. */
interface KnownEntries {
  at: (path: string) => Promise<{ id: string; title: string } | undefined>
  byId: (id: string) => Promise<{ id: string; title: string } | undefined>
}

/** Tells what an address that was typed or pasted leads to: to the file, signpost or page itself where it is one of our own. */
export function createRecognising(db: Database, pages: PageService, signposts: Signposts, site: SiteService, entries: KnownEntries) {
  /** The file with a handle, or that had it once. */
  async function fileAt(handle: string): Promise<Led | undefined> {
    const [file] = await db
      .select({ id: files.id, title: files.title })
      .from(files)
      .leftJoin(retiredHandles, eq(retiredHandles.fileId, files.id))
      .where(and(isNull(files.deleted), or(eq(files.handle, handle), eq(retiredHandles.handle, handle))))
      .limit(1)
    return file && { target: { kind: 'file', id: file.id }, title: file.title }
  }

  async function pageAt(slug: string): Promise<Led | undefined> {
    const page = await pages.at(slug)
    return page && { target: { kind: 'page', id: page.id }, title: page.title }
  }

  async function entryAt(path: string): Promise<Led | undefined> {
    const found = await entries.at(path)
    return found && { target: { kind: 'entry', id: found.id }, title: found.title }
  }

  async function signpostAt(name: string): Promise<Led | undefined> {
    const signpost = await signposts.at(name)
    return signpost && { target: { kind: 'signpost', id: signpost.id }, title: signpost.title }
  }

  async function ownPlace(path: string): Promise<Led | undefined> {
    return (await placeNow(decoded(path))) ?? (await formerPlace(path))
  }

  /** What took the place of an address the site had before. */
  async function formerPlace(path: string): Promise<Led | undefined> {
    const rows = await db
      .select({ target: oldAddresses.target })
      .from(oldAddresses)
      .where(and(among(oldAddresses.path, waysToRead(path)), isNotNull(oldAddresses.target)))
    const [row] = rows
    return row?.target ? titled(row.target) : undefined
  }

  async function titled(target: Target): Promise<Led | undefined> {
    if (!('id' in target)) return undefined
    const [row] =
      target.kind === 'file'
        ? await db
            .select({ title: files.title })
            .from(files)
            .where(and(eq(files.id, target.id), isNull(files.deleted)))
        : target.kind === 'page'
          ? await db.select({ title: pageTable.title }).from(pageTable).where(eq(pageTable.id, target.id))
          : target.kind === 'entry'
            ? [await entries.byId(target.id)]
            : [await signposts.get(target.id).catch(() => undefined)]
    return row && { target, title: row.title }
  }

  async function placeNow(plain: string): Promise<Led | undefined> {
    if (plain.startsWith(FILES)) return fileAt(plain.slice(FILES.length))
    if (plain.startsWith(TO)) return signpostAt(plain.slice(TO.length))
    return plain.slice(1).includes('/') ? entryAt(plain.slice(1)) : pageAt(plain.slice(1))
  }

  return {
    /** What lies at an address of this site, whatever host it names. */
    async ownPath(address: string): Promise<Led | undefined> {
      return URL.canParse(address, 'http://own/') ? ownPlace(new URL(address, 'http://own/').pathname) : undefined
    },

    /**
     * @param host that the desk itself was asked at
     * @throws Problem 422 where the text is no address, 404 where nothing of ours is there
     */
    async recognise(text: string, host: string): Promise<Led> {
      const read = recognise(text, [host, ...(await site.hosts())])
      switch (read?.kind) {
        case undefined:
          throw new Problem(422, 'That is no address.', 'Give one such as https://www.example.com/, an e-mail address or a phone number.')
        case 'own': {
          const led = await ownPlace(read.path)
          if (!led) throw new Problem(404, 'This site has nothing at that address.', 'Find the file or page by its name.')
          return led
        }
        case 'address':
          return { target: read, title: read.href.replace(/^https?:\/\/(?:www\.)?/, '').replace(/\/$/, '') }
        case 'email':
          return { target: read, title: read.address }
        case 'phone':
          return { target: read, title: read.number }
      }
    },

    /** What addresses are that name a host of this site, of today or earlier; those elsewhere are left out. */
    async ownPlaces(hrefs: string[]): Promise<Map<string, Led | 'nothing'>> {
      const places = new Map<string, Led | 'nothing'>()
      if (!hrefs.length) return places
      const hosts = await site.hosts()
      for (const href of hrefs) {
        const read = recognise(href, hosts)
        if (read?.kind === 'own') places.set(href, (await ownPlace(read.path)) ?? 'nothing')
      }
      return places
    },
  }
}
export type Recognising = ReturnType<typeof createRecognising>
