import { and, asc, eq, isNull, ne, notInArray, sql, type SQL, type SQLWrapper } from 'drizzle-orm'
import {
  CLOSED_GATE,
  OPEN_GATE,
  gateRuleSchema,
  isBuiltIn,
  type ChangedPassword,
  type GateChange,
  type GateItem,
  type GateRule,
  type GateUses,
  type NewGate,
  type NewPassword,
} from '../../../core/gate/gate'
import { newId } from '../../../core/id'
import { Problem, notFound } from '../../../core/problem'
import type { Database, Queryable } from '../../db/connection'
import { files, folders, gatePasswords, gates, gateTakes, pages } from '../../db/schema'
import { countAdmitted } from '../guests/membership'
import { SPENT, type Passwords } from './passwords'

/** More would make a list nobody overlooks. */
const MOST_PASSWORDS = 50
/** Things behind a gate that are named one by one. */
const MOST_NAMED = 200

type Row = typeof gates.$inferSelect

/** The passwords that open a gate. */
const ofGate = (id: string) => and(eq(gatePasswords.gateId, id), ne(gatePasswords.hash, SPENT))

/** @throws Problem 422 where something shall stand behind a gate that is not there */
export async function mustBeGate(tx: Queryable, gate: string | null | undefined): Promise<void> {
  if (!gate) return
  // It stays until this transaction is done.
  const [row] = await tx.select({ id: gates.id }).from(gates).where(eq(gates.id, gate)).for('key share')
  if (!row) throw new Problem(422, 'That gate is no longer there.', 'Choose another one.', { field: 'gate' })
}

/** @throws Problem 422 where parts of a rule do not go together */
function ruleOf(parts: unknown): GateRule {
  const { success, data, error } = gateRuleSchema.safeParse(parts)
  if (success) return data
  const { path, message } = error.issues[0]!
  throw new Problem(422, 'That cannot be used as it is.', message, { field: path.join('.') })
}

/** The gates of a site, as their owner makes and changes them. */
export function createGates(db: Database, passwords: Pick<Passwords, 'hash'>) {
  async function mustHave(q: Queryable, id: string): Promise<Row> {
    const [row] = await q.select().from(gates).where(eq(gates.id, id)).for('update')
    if (!row || isBuiltIn(id)) throw notFound('gate')
    return row
  }

  async function checkName(tx: Queryable, name: string, except = ''): Promise<void> {
    const [same] = await tx
      .select({ id: gates.id })
      .from(gates)
      .where(and(sql`lower(${gates.name}) = lower(${name})`, ne(gates.id, except)))
    if (same) throw new Problem(409, `There is a gate named “${name}” already.`, 'Choose another name.', { field: 'name' })
  }

  async function list(): Promise<GateItem[]> {
    const countOf = (what: SQL) => sql<number>`(select count(*)::int from ${what})`
    const rows = await db
      .select({
        gate: gates,
        files: countOf(sql`${files} where ${files.gate} = ${gates.id} and ${files.deleted} is null`),
        folders: countOf(sql`${folders} where ${folders.gate} = ${gates.id} and ${folders.deleted} is null`),
        pages: countOf(sql`${pages} where ${pages.gate} = ${gates.id}`),
        taken: countOf(sql`${gateTakes} where ${gateTakes.gateId} = ${gates.id}`),
      })
      .from(gates)
      .where(notInArray(gates.id, [OPEN_GATE, CLOSED_GATE]))
      .orderBy(asc(gates.name))
    const given = await db.select().from(gatePasswords).where(ne(gatePasswords.hash, SPENT)).orderBy(asc(gatePasswords.created))
    const admits = new Map<string, number>()
    for (const {
      gate: { id, rule },
    } of rows)
      if (rule.kind === 'people') admits.set(id, await countAdmitted(db, rule))
    return rows.map(({ gate: { id, name, rule, wrong, wrongSince, created }, ...counts }) => ({
      id,
      name,
      rule,
      passwords: given
        .filter(({ gateId }) => gateId === id)
        .map(row => ({ id: row.id, label: row.label, created: row.created.toISOString() })),
      ...counts,
      admits: admits.get(id) ?? 0,
      wrong,
      wrongSince: wrongSince?.toISOString() ?? null,
      created: created.toISOString(),
    }))
  }

  async function get(id: string): Promise<GateItem> {
    const gate = (await list()).find(each => each.id === id)
    if (!gate) throw notFound('gate')
    return gate
  }

  async function addPassword(tx: Queryable, gateId: string, label: string, hash: string): Promise<void> {
    const there = await tx.select({ id: gatePasswords.id }).from(gatePasswords).where(ofGate(gateId))
    if (there.length >= MOST_PASSWORDS)
      throw new Problem(409, `There are ${MOST_PASSWORDS} passwords already.`, 'Take one back that nobody needs.')
    await tx.insert(gatePasswords).values({ id: newId(), gateId, label, hash })
  }

  /** A hash of the gate's, whose salt others share. */
  async function hashLike(gateId: string, password: string): Promise<string> {
    const [first] = await db.select({ hash: gatePasswords.hash }).from(gatePasswords).where(ofGate(gateId)).limit(1)
    return passwords.hash(password, first?.hash)
  }

  return {
    list,
    get,

    /** @throws Problem 409 where the name is taken */
    async create({ name, rule, password }: NewGate): Promise<GateItem> {
      const id = newId()
      const hash = password === undefined || rule.kind !== 'password' ? undefined : await passwords.hash(password)
      await db.transaction(async tx => {
        await checkName(tx, name)
        await tx.insert(gates).values({ id, name, rule })
        if (hash !== undefined) await addPassword(tx, id, '', hash)
      })
      return get(id)
    },

    /** @throws Problem 404, or 409 where the name is taken */
    async change(id: string, { name, rule }: GateChange): Promise<GateItem> {
      await db.transaction(async tx => {
        const before = await mustHave(tx, id)
        if (name !== undefined) await checkName(tx, name, id)
        const after = rule ? ruleOf({ ...before.rule, ...rule }) : before.rule
        // Who was let in by one kind has not done what another asks.
        const epoch = after.kind === before.rule.kind ? before.epoch : before.epoch + 1
        await tx
          .update(gates)
          .set({ name: name ?? before.name, rule: after, epoch })
          .where(eq(gates.id, id))
      })
      return get(id)
    },

    /** One more password. @throws Problem 404, or 409 where there are too many */
    async addPassword(id: string, { label, password }: NewPassword): Promise<GateItem> {
      const hash = await hashLike(id, password)
      await db.transaction(async tx => {
        await mustHave(tx, id)
        await addPassword(tx, id, label, hash)
      })
      return get(id)
    },

    /** A password in the place of all there are. */
    async changePassword(id: string, { label, password, endPasses }: ChangedPassword): Promise<GateItem> {
      const hash = await passwords.hash(password)
      await db.transaction(async tx => {
        const { epoch } = await mustHave(tx, id)
        if (endPasses) {
          await tx.delete(gatePasswords).where(eq(gatePasswords.gateId, id))
          await tx
            .update(gates)
            .set({ epoch: epoch + 1 })
            .where(eq(gates.id, id))
        }
        // Without its hash none opens the gate any more, and the passes it gave go on.
        else await tx.update(gatePasswords).set({ hash: SPENT }).where(eq(gatePasswords.gateId, id))
        await addPassword(tx, id, label, hash)
      })
      return get(id)
    },

    /** Takes a password back; the passes that were given by it end at once. @throws Problem 404 */
    async removePassword(id: string, password: string): Promise<GateItem> {
      const gone = await db
        .delete(gatePasswords)
        .where(and(eq(gatePasswords.id, password), eq(gatePasswords.gateId, id)))
        .returning({ id: gatePasswords.id })
      if (!gone.length) throw notFound('password')
      return get(id)
    },

    /** Ends all passes of a gate: everyone is asked again. @throws Problem 404 */
    async endPasses(id: string): Promise<GateItem> {
      await db.transaction(async tx => {
        const { epoch } = await mustHave(tx, id)
        await tx
          .update(gates)
          .set({ epoch: epoch + 1 })
          .where(eq(gates.id, id))
      })
      return get(id)
    },

    /** What stands behind a gate by itself; what lies in folders behind it goes without saying. */
    async uses(id: string): Promise<GateUses> {
      const named = { id: files.id, title: files.title }
      return {
        files: await db
          .select(named)
          .from(files)
          .where(and(eq(files.gate, id), isNull(files.deleted)))
          .orderBy(asc(files.title))
          .limit(MOST_NAMED),
        folders: await db
          .select({ id: folders.id, name: folders.name })
          .from(folders)
          .where(and(eq(folders.gate, id), isNull(folders.deleted)))
          .orderBy(asc(folders.name))
          .limit(MOST_NAMED),
        pages: await db
          .select({ id: pages.id, title: pages.title })
          .from(pages)
          .where(eq(pages.gate, id))
          .orderBy(asc(pages.title))
          .limit(MOST_NAMED),
      }
    },

    /**
     * Takes a gate away.
     *
     * @param open what stands behind it is open to everyone then, as far as nothing is said further up
     * @throws Problem 404, or 409 with the `uses` that hold it back
     */
    async remove(id: string, open: boolean): Promise<void> {
      const uses = await this.uses(id)
      await db.transaction(async tx => {
        await mustHave(tx, id)
        if (!open && uses.files.length + uses.folders.length + uses.pages.length)
          throw new Problem(409, 'Things stand behind this gate.', 'Put them behind another one first, or open them to everyone.', { uses })
        // What lies in the bin was not seen when that was said: where it comes back, nobody passes until somebody opens it.
        const after = (deleted: SQLWrapper) => sql`case when ${deleted} is null then null else ${CLOSED_GATE} end`
        await tx
          .update(files)
          .set({ gate: after(files.deleted) })
          .where(eq(files.gate, id))
        await tx
          .update(folders)
          .set({ gate: after(folders.deleted) })
          .where(eq(folders.gate, id))
        await tx.update(pages).set({ gate: null }).where(eq(pages.gate, id))
        await tx.delete(gateTakes).where(eq(gateTakes.gateId, id))
        await tx.delete(gates).where(eq(gates.id, id))
      })
    },
  }
}
export type Gates = ReturnType<typeof createGates>
