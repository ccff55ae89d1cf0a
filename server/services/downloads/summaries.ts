import { eq } from 'drizzle-orm'
import { z } from 'zod'
import { composeLetter } from '../../../core/outbox/compose'
import { Problem } from '../../../core/problem'
import { boardQuerySchema, viewSchema } from '../../../core/tally/board'
import { lastPeriod, summaryFormSchema, summaryLines, type Period, type SummaryForm } from '../../../core/tally/summary'
import type { Database, Queryable } from '../../db/connection'
import { settings } from '../../db/schema'
import type { NewMessage, Outbox } from '../outbox/outbox'
import type { Downloads } from './downloads'

const KEY = 'summary'
/** Files that are looked through for what rose and fell. */
const MOST = 1000

/** As it is kept: with the first day of the period that was told last, and the desk's scheme and host when it was chosen. */
const keptSchema = z.object({
  every: z.string().optional(),
  to: z.string().optional(),
  told: z.string().default(''),
  origin: z.string().default(''),
})

interface Needs {
  db: Database
  downloads: Pick<Downloads, 'board' | 'misses'>
  outbox: Pick<Outbox, 'add' | 'soon'>
  site: () => Promise<{ name: string; zone: string; /** scheme and host; empty until known */ address: string }>
  now?: () => number
}

/** Tells by message, each week or month, what was taken and what did not work. */
export function createSummaries({ db, downloads, outbox, site, now = Date.now }: Needs) {
  type Kept = SummaryForm & { told: string; origin: string }

  async function read(q: Queryable = db): Promise<Kept> {
    const [row] = await q.select().from(settings).where(eq(settings.key, KEY))
    const kept = keptSchema.parse(row?.value ?? {})
    return { ...summaryFormSchema.parse({ every: kept.every, to: kept.to }), told: kept.told, origin: kept.origin }
  }
  const write = (value: Kept, q: Queryable = db) =>
    q.insert(settings).values({ key: KEY, value }).onConflictDoUpdate({ target: settings.key, set: { value } })

  async function compose({ firstDay, lastDay }: Period, to: string, origin: string): Promise<NewMessage> {
    const { name, address } = await site()
    const days = { span: 'days', from: firstDay, to: lastDay } as const
    const { total, before, list, names } = await downloads.board(boardQuerySchema.parse({ ...days, list: 'file', most: MOST }), {
      people: false,
    })
    const missed = await downloads.misses(viewSchema.parse(days))
    const named = (id: string) => missed.names[id]?.title
    const lines = summaryLines({
      total: total.count,
      before: before?.count ?? 0,
      files: list.rows.map(row => ({
        title: names.file?.[row.key]?.title ?? 'A file that is gone',
        count: row.count,
        before: row.before ?? 0,
      })),
      broken: missed.broken.flatMap(({ key, count }) => (named(key) === undefined ? [] : [{ title: named(key)!, count }])),
      missing: missed.missing.map(({ key, count }) => ({ address: key, count })),
      unfound: missed.unfound.map(({ key, count }) => ({ words: key, count })),
    })
    const base = address || origin
    const link = { href: `${base}/desk/downloads?span=days&from=${firstDay}&to=${lastDay}`, words: 'See the board' }
    const after = 'Who is signed in at the desk changes there, under Downloads, how often this comes.'
    const words = [`From ${firstDay} to ${lastDay}:`, ...lines].join('\n')
    return { to, subject: `What was taken from ${name}, ${firstDay} to ${lastDay}`, ...composeLetter({ words, link, after, site: name }) }
  }

  return {
    async get(): Promise<SummaryForm> {
      const { every, to } = await read()
      return { every, to }
    },

    /**
     * The first one comes when the period that is under way has ended.
     *
     * @param origin scheme and host of the desk, for where the site has no address yet
     */
    async set(form: SummaryForm, origin: string): Promise<SummaryForm> {
      const told = form.every === 'never' ? '' : lastPeriod(form.every, now(), (await site()).zone).firstDay
      await write({ ...form, told, origin })
      return form
    },

    /** Writes one of the last whole period now. @throws Problem 409 where nobody is named to whom it goes */
    async tellNow(): Promise<void> {
      const { every, to, origin } = await read()
      if (every === 'never' || !to) throw new Problem(409, 'Nothing is sent as yet.', 'Choose how often, and to whom, and save it first.')
      await outbox.add(await compose(lastPeriod(every, now(), (await site()).zone), to, origin))
      outbox.soon()
    },

    /** Writes one where a period has ended that was not told; once, whoever else asks at the same time. */
    async runWhenDue(): Promise<void> {
      const { every, to, told, origin } = await read()
      if (every === 'never') return
      const period = lastPeriod(every, now(), (await site()).zone)
      if (period.firstDay <= told) return
      const message = await compose(period, to, origin)
      await db.transaction(async tx => {
        await tx.select({ key: settings.key }).from(settings).where(eq(settings.key, KEY)).for('update')
        const still = await read(tx)
        // Meanwhile another has told it, or it was chosen anew.
        if (still.every !== every || still.to !== to || period.firstDay <= still.told) return
        await outbox.add(message, tx)
        await write({ ...still, told: period.firstDay }, tx)
      })
      outbox.soon()
    },
  }
}
export type Summaries = ReturnType<typeof createSummaries>
