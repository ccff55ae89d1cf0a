import { and, asc, desc, eq, exists, getTableColumns, isNotNull, isNull, lt, sql, type SQL, type SQLWrapper } from 'drizzle-orm'
import { contactRulesSchema, type Contact, type ContactItem, type ContactQuery, type ContactRules } from '../../../core/contacts/contact'
import { csvLine } from '../../../core/csvLine'
import type { Admitted } from '../../../core/gate/admission'
import { VisitorProblem } from '../../../core/language/visitorProblem'
import { newId } from '../../../core/id'
import { notFound } from '../../../core/problem'
import { among } from '../../db/among'
import type { Database, Queryable } from '../../db/connection'
import { holding, nearBy } from '../../db/like'
import { admissions, contacts, files, gates, gateTakes, hookMessages, outbox, settings } from '../../db/schema'
import type { Events } from '../events'
import { kept } from '../kept'
import { forgetPersons } from '../tally/persons'
import { tellHooks } from '../tellHooks'

/** Under which it is kept how long contacts are. */
const RULES_KEY = 'contacts'

/** Calls `act` once the rules have changed: how long contacts are kept stands on pages. */
export function onContactRules(events: Events, act: () => void): void {
  events.on('settings', keys => {
    if (keys.includes(RULES_KEY)) act()
  })
}
/** Contacts read at once for a table. */
const AT_ONCE = 500
const MOST_TAKES = 500

/** What is counted for each contact: the pass that somebody known has counts as them. */
export const passOf = (contactId: string): string => `c-${contactId}`

/** Erases what else is known of some addresses, in the caller's transaction. */
export type AlsoErased = (tx: Queryable, emails: readonly string[]) => Promise<void>

/** Everyone who left an e-mail address: when, where, what they agreed to and what they took. */
export function createContacts(db: Database, events: Events, alsoErased: AlsoErased[] = []) {
  // Counting a hundred thousand takes longer than all the rest of a list. A count of Drizzle's asks anew whenever it is waited for.
  const all = kept(async () => db.$count(contacts))
  events.on('contacts', all.forget)

  function filterOf({ q, gate, confirmed }: Pick<ContactQuery, 'q' | 'gate' | 'confirmed'>): SQL | undefined {
    const came = (that: SQL | undefined) =>
      exists(
        db
          .select({ one: sql`1` })
          .from(admissions)
          .where(and(eq(admissions.contactId, contacts.id), that)),
      )
    const pattern = holding(q)
    const foundBy = (id: SQLWrapper, table: SQLWrapper, text: SQLWrapper) =>
      sql`select ${id} from ${table} where ${text} ilike ${pattern} and ${nearBy(sql`words`, q)}`
    return and(
      q
        ? sql`${contacts.id} in (${foundBy(contacts.id, contacts, contacts.email)} union ${foundBy(admissions.contactId, admissions, sql`${admissions.given}::text`)})`
        : undefined,
      gate ? came(eq(admissions.gateId, gate)) : undefined,
      confirmed === 'yes' ? isNotNull(contacts.confirmed) : confirmed === 'no' ? isNull(contacts.confirmed) : undefined,
    )
  }

  /**
   * The newest first, with where each came last and how much they took, in one question: many small ones take longer to ask than to answer.
   */
  function items(where: SQL | undefined, { from, limit }: { from: number; limit: number }) {
    const { id, email, created, confirmed, unsubscribed } = contacts
    // Those that are left out are not looked into.
    const some = db
      .select({ id, email, created, confirmed, unsubscribed })
      .from(contacts)
      .where(where)
      .orderBy(desc(created), asc(id))
      .limit(limit)
      .offset(from)
      .as('some')
    const last = db
      .select({ name: admissions.gateName, at: admissions.at })
      .from(admissions)
      .where(eq(admissions.contactId, some.id))
      .orderBy(desc(admissions.at))
      .limit(1)
      .as('last')
    return db
      .select({
        id: some.id,
        email: some.email,
        created: some.created,
        confirmed: some.confirmed,
        unsubscribed: some.unsubscribed,
        last: last.name,
        lastAt: last.at,
        taken: sql<number>`(select count(*)::int from ${gateTakes} where ${gateTakes.pass} = ${passOf('')} || ${some.id})`,
      })
      .from(some)
      .leftJoinLateral(last, sql`true`)
      .orderBy(desc(some.created), asc(some.id))
  }
  const toItem = ({ created, confirmed, unsubscribed, last, lastAt, ...row }: Awaited<ReturnType<typeof items>>[number]): ContactItem => ({
    ...row,
    created: created.toISOString(),
    confirmed: confirmed?.toISOString() ?? null,
    unsubscribed: unsubscribed?.toISOString() ?? null,
    last: last ?? '',
    lastAt: lastAt?.toISOString() ?? null,
  })

  /** The contact with an address, made where there is none. */
  async function contactOf(tx: Queryable, email: string, confirmed: boolean): Promise<string> {
    const [row] = await tx
      .insert(contacts)
      .values({ id: newId(), email, confirmed: confirmed ? new Date() : null })
      .onConflictDoUpdate({
        target: contacts.email,
        set: { confirmed: confirmed ? sql`coalesce(${contacts.confirmed}, excluded.confirmed)` : sql`${contacts.confirmed}` },
      })
      .returning({ id: contacts.id })
    return row!.id
  }

  async function rowOf(id: string) {
    const [row] = await db.select().from(contacts).where(eq(contacts.id, id))
    if (!row) throw notFound('contact')
    return row
  }

  /** Takes out what is known of some contacts, in the caller's transaction. */
  async function eraseAll(tx: Queryable, rows: { id: string; email: string }[]): Promise<void> {
    if (!rows.length) return
    const passes = rows.map(({ id }) => passOf(id))
    await tx.delete(gateTakes).where(among(gateTakes.pass, passes))
    await forgetPersons(tx, passes)
    await tx.delete(outbox).where(
      among(
        outbox.to,
        rows.map(({ email }) => email),
      ),
    )
    for (const erase of alsoErased)
      await erase(
        tx,
        rows.map(({ email }) => email),
      )
    // What other services were told of them, too.
    const telling = rows.map(({ email }) => holding(JSON.stringify(email)))
    await tx.delete(hookMessages).where(sql`${hookMessages.body} like any(${sql.param(telling)}::text[])`)
    // With what they wrote and agreed to.
    await tx.delete(contacts).where(
      among(
        contacts.id,
        rows.map(({ id }) => id),
      ),
    )
  }

  async function rules(): Promise<ContactRules> {
    const [row] = await db.select().from(settings).where(eq(settings.key, RULES_KEY))
    return contactRulesSchema.parse(row?.value ?? {})
  }

  return {
    rules,

    async setRules(value: ContactRules): Promise<ContactRules> {
      await db.insert(settings).values({ key: RULES_KEY, value }).onConflictDoUpdate({ target: settings.key, set: { value } })
      return value
    },

    /** The newest first. */
    async list({ from, limit, ...filter }: ContactQuery): Promise<{ items: ContactItem[]; total: number }> {
      const where = filterOf(filter)
      const rows = await items(where, { from, limit })
      return { items: rows.map(toItem), total: where ? await db.$count(contacts, where) : await all.get() }
    },

    /** All that is known of somebody. @throws Problem 404 */
    async get(id: string): Promise<Contact> {
      const [row] = await items(eq(contacts.id, id), { from: 0, limit: 1 })
      if (!row) throw notFound('contact')
      const came = await db.select().from(admissions).where(eq(admissions.contactId, id)).orderBy(desc(admissions.at))
      const takes = await db
        .select({ at: gateTakes.at, fileId: gateTakes.fileId, title: files.title })
        .from(gateTakes)
        .leftJoin(files, eq(files.id, gateTakes.fileId))
        .where(eq(gateTakes.pass, passOf(id)))
        .orderBy(desc(gateTakes.at))
        .limit(MOST_TAKES)
      return {
        ...toItem(row),
        admissions: came.map(({ at, gateName, given }) => ({ at: at.toISOString(), gateName, ...given })),
        takes: takes.map(({ at, ...take }) => ({ ...take, at: at.toISOString() })),
      }
    },

    /**
     * Notes that somebody got through a gate, with what they wrote and agreed to, in the caller's transaction.
     *
     * @throws VisitorProblem 404 where the gate is gone
     */
    async admit(
      tx: Queryable,
      {
        gate,
        email,
        confirmed,
        given,
        pass,
      }: { gate: { id: string; name: string }; email?: string; confirmed: boolean; given: Admitted; pass?: string },
    ): Promise<{ contact?: string; pass: string }> {
      // It stays until this is done.
      const [there] = await tx.select({ id: gates.id }).from(gates).where(eq(gates.id, gate.id)).for('key share')
      if (!there) throw new VisitorProblem(404, 'nowhere')
      const contact = email === undefined ? undefined : await contactOf(tx, email, confirmed)
      const counted = contact === undefined ? (pass ?? newId()) : passOf(contact)
      await tx.insert(admissions).values({ gateId: gate.id, gateName: gate.name, pass: counted, contactId: contact, given })
      if (contact !== undefined)
        await tellHooks(tx, 'contact.left', [{ email, confirmed, gate: gate.name, answers: given.answers, consent: given.consent }])
      return { contact, pass: counted }
    },

    /** Notes that somebody left an address elsewhere than at a gate, in the caller's transaction. @param at what that is called */
    async leave(tx: Queryable, { email, at, answers }: { email: string; at: string; answers: Admitted['answers'] }): Promise<void> {
      const contactId = await contactOf(tx, email, false)
      await tx.insert(admissions).values({ gateName: at, pass: passOf(contactId), contactId, given: { answers, consent: '' } })
      await tellHooks(tx, 'contact.left', [{ email, confirmed: false, gate: at, answers, consent: '' }])
    },

    /** Everyone as a table, in pieces. */
    async *csv(filter: Pick<ContactQuery, 'q' | 'gate' | 'confirmed'>): AsyncGenerator<string> {
      // The mark by which table programs know UTF-8.
      yield '\uFEFF' + csvLine(['E-mail', 'Since', 'Confirmed', 'No more messages', 'Gate', 'When', 'Answers', 'Consent', 'Terms'])
      // The database tells moments apart that are one here: it has to be asked by its own.
      const exact = sql<string>`${contacts.created}::text`
      for (let last: { exact: string; id: string } | undefined, more = true; more;) {
        const behind = last && sql`(${contacts.created}, ${contacts.id}) > (${last.exact}::timestamptz, ${last.id})`
        const rows = await db
          .select({ ...getTableColumns(contacts), exact })
          .from(contacts)
          .where(and(filterOf(filter), behind))
          .orderBy(asc(contacts.created), asc(contacts.id))
          .limit(AT_ONCE)
        const came = rows.length
          ? await db
              .select()
              .from(admissions)
              .where(
                among(
                  admissions.contactId,
                  rows.map(({ id }) => id),
                ),
              )
              .orderBy(asc(admissions.at))
          : []
        let text = ''
        for (const { id, email, created, confirmed, unsubscribed } of rows) {
          const who = [email, created.toISOString(), confirmed?.toISOString() ?? '', unsubscribed?.toISOString() ?? '']
          const own = came.filter(({ contactId }) => contactId === id)
          for (const { gateName, at, given } of own)
            text += csvLine([
              ...who,
              gateName,
              at.toISOString(),
              given.answers.map(({ label, value }) => `${label}: ${value}`).join('\n'),
              given.consent,
              given.terms?.file ? `${given.terms.file.title}, edition ${given.terms.file.edition}` : (given.terms?.text ?? ''),
            ])
          if (!own.length) text += csvLine([...who, '', '', '', '', ''])
        }
        if (text) yield text
        more = rows.length === AT_ONCE
        last = rows.at(-1)
      }
    },

    /** Erases somebody with all traces. @returns the address, for the record that it was done */
    async erase(id: string): Promise<string> {
      const row = await rowOf(id)
      await db.transaction(tx => eraseAll(tx, [row]))
      return row.email
    },

    /** Erases those of whom nothing was heard for longer than they are kept. */
    async eraseOld(now = Date.now()): Promise<number> {
      const { keepDays: days } = await rules()
      if (days === null) return 0
      const since = new Date(now - days * 24 * 60 * 60 * 1000)
      return db.transaction(async tx => {
        const old = await tx
          .select({ id: contacts.id, email: contacts.email })
          .from(contacts)
          .where(
            and(
              lt(contacts.created, since),
              sql`not exists (select 1 from ${admissions} where ${admissions.contactId} = ${contacts.id} and ${admissions.at} >= ${since.toISOString()}::timestamptz)`,
            ),
          )
        await eraseAll(tx, old)
        return old.length
      })
    },

    /** Notes that somebody wants no more messages; that stays, and is known of an address that was never left here, too. */
    async unsubscribe(email: string): Promise<void> {
      await db
        .insert(contacts)
        .values({ id: newId(), email, unsubscribed: new Date() })
        .onConflictDoUpdate({
          target: contacts.email,
          set: { unsubscribed: sql`coalesce(${contacts.unsubscribed}, excluded.unsubscribed)` },
        })
    },

    /** Whether somebody said that they want no more messages. */
    wantsNone: async (email: string): Promise<boolean> =>
      (await db.select({ unsubscribed: contacts.unsubscribed }).from(contacts).where(eq(contacts.email, email)))[0]?.unsubscribed != null,
  }
}
export type Contacts = ReturnType<typeof createContacts>
