import { bundleHolder } from '../services/bundles/holder'
import { createBundles } from '../services/bundles/bundles'
import { createPacking } from '../services/bundles/packing'
import { createEditions } from '../services/editions/editions'
import { createLibraryService } from '../services/library/library'
import { createZipping } from '../services/library/zipping'
import { createArrivals } from '../services/letterbox/arrivals'
import { createCatalogues } from '../services/catalogues/catalogues'
import { createEntries } from '../services/catalogues/entries'
import { createEntryExport } from '../services/catalogues/exporting'
import { createEntryIndex } from '../services/catalogues/entryIndex'
import { createFieldBin } from '../services/catalogues/fieldBin'
import { createFolderFields } from '../services/catalogues/folderFields'
import { createFeeds } from '../services/catalogues/feeds'
import { createFileFields } from '../services/catalogues/fileFields'
import { createFilling } from '../services/catalogues/filling'
import { entryHolder, liveEntryFiles } from '../services/catalogues/holder'
import { createLayingOut } from '../services/catalogues/layingOut'
import { lookHolder } from '../services/looks/holder'
import { createLookService } from '../services/looks/looks'
import { pageHolder } from '../services/pages/holder'
import { createPageService } from '../services/pages/pages'
import { createPictures } from '../services/pictures/pictures'
import { createLooking } from '../services/reading/looking'
import { createReadingService } from '../services/reading/reading'
import { createSearchIndex } from '../services/reading/searchIndex'
import { createRecognising } from '../services/recognising/recognising'
import { createReplacing } from '../services/replacing/replacing'
import { createFindable } from '../services/shelves/findable'
import { createShelfLooks } from '../services/shelves/shelfLooks'
import { createShelves } from '../services/shelves/shelves'
import { createSiteIcons } from '../services/shelves/siteIcons'
import { signpostHolder } from '../services/signposts/holder'
import { createSignposts } from '../services/signposts/signposts'
import { createFirstPages } from '../services/site/firstPages'
import { createSiteIcon } from '../services/site/icon'
import { createSharedPictures } from '../services/site/sharedPictures'
import { createSiteService } from '../services/site/site'
import { createTimetable } from '../services/timetable/timetable'
import { createTypefaces } from '../services/typefaces/typefaces'
import { createHolders } from '../services/uses/holders'
import type { Programs } from '../../core/files/programs'
import type { Traffic } from '../services/traffic'
import { createContacts } from '../services/contacts/contacts'
import type { Visitors } from '../services/visitorAddress'
import type { DataFolder } from './dataFolder'
import { createKeptTree } from '../services/files/keptTree'
import { forgetSentTo } from '../services/gates/links'
import { openGates } from './gates'
import type { Owner } from './owner'

interface HoldingsOptions {
  traffic: Traffic
  /** the public address of the site, where the environment gives one */
  siteAddress: string
  programs: Programs
  visitors: Visitors
  now?: () => number
}

/** All that the owner makes and keeps: files, pages, looks, signposts, the site itself. */
export function openHoldings(
  dataFolder: DataFolder,
  owner: Pick<Owner, 'hasher'>,
  { traffic, siteAddress, programs, visitors, now }: HoldingsOptions,
) {
  const { connection, store, derivedFolder, events } = dataFolder
  const { db } = connection
  const site = createSiteService(db, events, siteAddress)
  const tree = createKeptTree(db, events)
  const opened = openGates(dataFolder, owner, { visitors, tree, zone: async () => (await site.get()).timeZone, now })
  const { guard, standing } = opened
  const pages = createPageService(db)
  const signposts = createSignposts(db, pages)
  const looks = createLookService(db, pages)
  const holders = createHolders([pageHolder(pages), signpostHolder(pages), lookHolder, bundleHolder, entryHolder])
  const texts = createSearchIndex(db)
  const library = createLibraryService({ connection, store, holders, texts, tree, events })
  const editions = createEditions(db, library, texts)
  const reading = createReadingService({ db, store, folder: derivedFolder, texts, events, traffic, programs })
  const looking = createLooking(store, derivedFolder)
  const pictures = createPictures(db, looking, reading, guard, events)
  const bundles = createBundles(db, events, standing)
  const pack = createPacking(bundles.laidOut)
  const shelves = createShelves(pages, library, pack)
  const sharedPictures = createSharedPictures(site, looks)
  const typefaces = createTypefaces(db, store, looks)
  const arrivals = createArrivals(db)
  const entryIndex = createEntryIndex(db, events)
  const entries = createEntries(db, entryIndex)
  const filling = createFilling(entryIndex, pages, events)
  const folderFields = createFolderFields(db, entryIndex, tree, events)
  const timetable = createTimetable(db, { signposts, entries, site }, now)

  return {
    ...opened,
    arrivals,
    contacts: createContacts(db, events, [arrivals.eraseOf, forgetSentTo]),
    site,
    catalogues: createCatalogues(db),
    entries,
    entryIndex,
    entryExport: createEntryExport(db, entryIndex, pack),
    fieldBin: createFieldBin(db),
    folderFields,
    fileFields: createFileFields(db, entryIndex),
    filling,
    feeds: createFeeds(db, entryIndex, filling),
    layingOut: createLayingOut(db, pages),
    pages,
    signposts,
    looks,
    library,
    editions,
    reading,
    looking,
    pictures,
    bundles,
    sharedPictures,
    timetable,
    typefaces,
    firstPages: createFirstPages({ pages, site, library }),
    icon: createSiteIcon({ db, events, site, looks, pictures }),
    zipping: createZipping(db, pack),
    shelves,
    shelfLooks: createShelfLooks(db, pages),
    siteIcons: createSiteIcons(db),
    texts,
    findable: createFindable({ pages, library, signposts, shelves, entryFiles: () => liveEntryFiles(db), guard, events }),
    recognising: createRecognising(db, pages, signposts, site, entryIndex.named),
    replacing: createReplacing(db, pages, signposts, holders),

    async closeHoldings(): Promise<void> {
      await timetable.close()
      await folderFields.close()
      await typefaces.close()
      await reading.close()
      await looking.close()
      await editions.close()
      await sharedPictures.close()
      await bundles.close()
    },
  }
}
export type Holdings = ReturnType<typeof openHoldings>
