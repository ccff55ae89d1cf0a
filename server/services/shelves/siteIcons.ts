import { siteIconsSchema, type SiteIcon } from '../../../core/shelf/icons'
import type { Database } from '../../db/connection'
import { settingsList } from '../settingsList'

const ICONS_KEY = 'icons'

/** The icons that a site has of its own, for types, folders, tags and single files. */
export function createSiteIcons(db: Database) {
  const list = settingsList<SiteIcon>(db, ICONS_KEY, siteIconsSchema)
  return {
    list: () => list.read(),

    /** Puts an icon in the place of what its kind of thing had before. */
    set: (icon: SiteIcon): Promise<SiteIcon[]> =>
      list.change(async icons => {
        const items = [...icons.filter(({ of }) => of.kind !== icon.of.kind || of.value !== icon.of.value), icon]
        return { items, given: items }
      }),

    /** Takes an icon away. */
    remove: (of: SiteIcon['of']): Promise<SiteIcon[]> =>
      list.change(async icons => {
        const items = icons.filter(each => each.of.kind !== of.kind || each.of.value !== of.value)
        return { items, given: items }
      }),
  }
}
export type SiteIcons = ReturnType<typeof createSiteIcons>
