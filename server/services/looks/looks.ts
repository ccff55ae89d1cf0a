import { asc, eq, ne, and } from 'drizzle-orm'
import { canonical } from '../../../core/canonical'
import { newId } from '../../../core/id'
import { BUILT_IN_LOOKS, builtInLooks } from '../../../core/look/builtin'
import type { Appearance } from '../../../core/look/appearance'
import type { Look, LookUse, NewLook } from '../../../core/look/look'
import { DEFAULT_STYLE, siteStyleSchema, type SiteStyle } from '../../../core/look/siteStyle'
import { Problem, notFound } from '../../../core/problem'
import type { Database, Queryable } from '../../db/connection'
import { anyGiven } from '../../db/given'
import { looks, settings } from '../../db/schema'
import type { PageService } from '../pages/pages'
import { keepFonts } from './keepFonts'

const STYLE_KEY = 'style'
const isBuiltIn = (id: string) => BUILT_IN_LOOKS.some(look => look.id === id)

/** The looks of a site, and the colours and type that feed them. */
export function createLookService(db: Database, pages: PageService) {
  async function style(q: Queryable): Promise<SiteStyle> {
    const [row] = await q.select().from(settings).where(eq(settings.key, STYLE_KEY))
    return row ? siteStyleSchema.parse(row.value) : DEFAULT_STYLE
  }

  /** All looks, those that come with Trough first, as they belong to a style. */
  async function list(q: Queryable, worn: SiteStyle): Promise<Look[]> {
    const rows = await q.select().from(looks).orderBy(asc(looks.created))
    return [...builtInLooks(worn), ...rows.map(({ id, name, appearance }) => ({ id, name, appearance, builtIn: false }))]
  }

  async function checkName(q: Queryable, name: string, except = ''): Promise<void> {
    const [holder] = await q
      .select({ id: looks.id })
      .from(looks)
      .where(and(eq(looks.name, name), ne(looks.id, except)))
      .limit(1)
    if (holder || BUILT_IN_LOOKS.some(look => look.name === name))
      throw new Problem(409, `There is a look named “${name}” already.`, 'Choose another name.', { field: 'name' })
  }

  async function add(tx: Queryable, { name, appearance }: NewLook): Promise<Look> {
    await checkName(tx, name)
    const id = newId()
    await tx.insert(looks).values({ id, name, appearance })
    return { id, name, appearance, builtIn: false }
  }

  function refuseBuiltIn(id: string, what: string): void {
    if (isBuiltIn(id)) throw new Problem(409, `This look comes with Trough and cannot be ${what}.`, 'Save a copy of it under another name.')
  }

  return {
    list: async () => list(db, await style(db)),

    /** Appearances by the identity of their look, in a style. */
    async appearances(worn: SiteStyle): Promise<Map<string, Appearance>> {
      return new Map((await list(db, worn)).map(look => [look.id, look.appearance]))
    },

    /** @throws Problem 409 where the name is taken */
    create: (look: NewLook): Promise<Look> => db.transaction(tx => add(tx, look)),

    /** Adds looks that came from elsewhere, all or none: those that are not there just so; a name that is taken gets a number. */
    async take(given: NewLook[]): Promise<Look[]> {
      return db.transaction(async tx => {
        const there = await list(tx, await style(tx))
        const names = new Set(there.map(look => look.name))
        const same = new Set(there.map(({ name, appearance }) => canonical({ name, appearance })))
        const added: Look[] = []
        for (const { name, appearance } of given.filter(({ name, appearance }) => !same.has(canonical({ name, appearance })))) {
          let free = name
          for (let number = 2; names.has(free); number++) free = `${name} ${number}`
          names.add(free)
          added.push(await add(tx, { name: free, appearance }))
        }
        return added
      })
    },

    /**
     * Changes a look; every button that wears it follows at once.
     *
     * @throws Problem 404, or 409 for one that comes with Trough or a name that is taken
     */
    async change(id: string, change: Partial<NewLook>): Promise<Look> {
      refuseBuiltIn(id, 'changed')
      const changed = await db.transaction(async tx => {
        if (change.name !== undefined) await checkName(tx, change.name, id)
        const those = eq(looks.id, id)
        const [row] = await (anyGiven(change)
          ? tx.update(looks).set(change).where(those).returning()
          : tx.select().from(looks).where(those))
        if (!row) throw notFound('look')
        return row
      })
      return { id, name: changed.name, appearance: changed.appearance, builtIn: false }
    },

    /** Where each look is worn. */
    uses: (): Promise<LookUse[]> => pages.looksWorn(),

    /**
     * Deletes a look.
     *
     * @param instead the look that its buttons get
     * @throws Problem 409 with `places` where buttons wear it and `instead` is not given
     */
    async remove(id: string, instead?: string): Promise<void> {
      refuseBuiltIn(id, 'deleted')
      await db.transaction(async tx => {
        const all = await list(tx, await style(tx))
        const look = all.find(one => one.id === id)
        if (!look) throw notFound('look')
        if (instead !== undefined && (instead === id || !all.some(one => one.id === instead)))
          throw new Problem(400, 'The look to take instead is not there.', 'Choose another one.')
        const places = (await pages.looksWorn(tx)).filter(use => use.look === id)
        if (places.length && instead === undefined)
          throw new Problem(409, `Buttons wear the look “${look.name}”.`, 'Say which look they get instead.', { places })
        if (instead !== undefined) await pages.changeLook(tx, id, instead)
        await tx.delete(looks).where(eq(looks.id, id))
      })
    },

    style: () => style(db),

    /**
     * Sets colours and type of the site; every look and page follows at once.
     *
     * @throws Problem 422 where a font of the site's own is no longer there
     */
    async setStyle(style: SiteStyle): Promise<SiteStyle> {
      await db.transaction(async tx => {
        await keepFonts(tx, style.own)
        await tx
          .insert(settings)
          .values({ key: STYLE_KEY, value: style })
          .onConflictDoUpdate({ target: settings.key, set: { value: style } })
      })
      return style
    },
  }
}
export type LookService = ReturnType<typeof createLookService>
