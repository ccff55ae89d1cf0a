import { rm } from 'node:fs/promises'
import { setImmediate as turn } from 'node:timers/promises'
import { Readable } from 'node:stream'
import { and, desc, eq, isNull, lt, sql } from 'drizzle-orm'
import type { Values } from '../../../core/catalogue/entry'
import { TITLE, newField, type Field } from '../../../core/catalogue/field'
import type { ImportForecast, ImportItem, ImportLook, ImportPlan } from '../../../core/catalogue/import'
import { PlanFault, columnsOf, firstPlan, namesFrom, planImport, withHeading, type Planned } from '../../../core/catalogue/planning'
import { writeCell } from '../../../core/catalogue/values'
import { formatSize } from '../../../core/files/size'
import { fold } from '../../../core/find/fold'
import { newId } from '../../../core/id'
import type { JobItem } from '../../../core/jobs/jobItem'
import { Problem, notFound } from '../../../core/problem'
import type { Database, Queryable } from '../../db/connection'
import { insertMany } from '../../db/insertMany'
import { catalogues, editions, entries, entryImportRows, entryImports, files } from '../../db/schema'
import type { GridAnswer, GridTask } from '../../workers/grid'
import type { Jobs } from '../jobs/jobs'
import { keep } from '../uploads/keep'
import { createAsker, workerScript } from '../workerHost'
import type { Catalogues } from './catalogues'
import { catalogueItem, holdCatalogue } from './catalogueRows'
import { holdEntries, insertEntries, recordEntryFiles } from './entryWriting'

/** Bytes of a table that is brought in. */
const MOST = 60_000_000
/** Milliseconds in which a table has to be read. */
const PATIENCE = 60_000
/** Entries in one transaction: visitors' questions come in between. */
const AT_ONCE = 250
const SAMPLES = 5
/** Milliseconds that a table is kept which was looked at and not brought in. */
const LOOKED_FOR = 24 * 60 * 60 * 1000

async function* upTo(stream: Readable): AsyncGenerator<Buffer> {
  let seen = 0
  for await (const chunk of stream as AsyncIterable<Buffer>) {
    seen += chunk.length
    if (seen > MOST) throw new Problem(413, 'That is too much at once.', `Bring a table of at most ${formatSize(MOST)}.`)
    yield chunk
  }
}

const unreadable = (fault: string) =>
  new Problem(422, 'This table could not be read.', `${fault} Bring CSV, XLSX, ODS or JSON, with a heading above each column.`)

/**
 * Brings tables in as entries: looked at first, written in stretches, taken back as one.
 *
 * @param incoming where a file lies that is coming in
 */
export function createImporting(db: Database, catalogueService: Catalogues, jobs: Jobs, incoming: (id: string) => string) {
  const grid = createAsker<GridTask, GridAnswer>(workerScript('grid'), PATIENCE)

  /** Files of the library by the names that tables call them: that of the file, its title, the end of its address. */
  async function fileNames(): Promise<(name: string) => string | undefined> {
    const rows = await db
      .select({ id: files.id, title: files.title, handle: files.handle, fileName: editions.fileName })
      .from(files)
      .innerJoin(editions, and(eq(editions.fileId, files.id), eq(editions.number, files.edition)))
      .where(isNull(files.deleted))
    const named = new Map<string, string>()
    for (const { id, title, handle, fileName } of rows)
      for (const name of [title, handle, fileName]) if (!named.has(fold(name))) named.set(fold(name), id)
    for (const { id, fileName } of rows) named.set(fold(fileName), id)
    return name => named.get(fold(name.split(/[\\/]/).at(-1)!.trim()))
  }

  async function lookedAt(id: string) {
    const [row] = await db.select().from(entryImports).where(eq(entryImports.id, id))
    if (!row || row.state !== 'looked') throw notFound('table')
    return row
  }

  const newFields = (): Field[] => [newField(TITLE, 'Name')]

  /** What a plan makes of a table, with the entries as they are. @throws Problem 422 where it cannot be */
  async function planned(q: Queryable, id: string, plan: ImportPlan): Promise<Planned & { name: string }> {
    const { rows, columns, name } = await lookedAt(id)
    const { body, first } = withHeading(rows)
    const catalogue = plan.catalogue === null ? undefined : await catalogueItem(q, plan.catalogue)
    const named = plan.mapping.findIndex(to => to.to === 'field' && to.field === TITLE)
    // A new catalogue calls its names as the table does.
    const fields = catalogue?.fields ?? newFields().map(field => ({ ...field, name: columns[named]?.name ?? field.name }))
    const there = catalogue
      ? await q
          .select({ id: entries.id, values: entries.values })
          .from(entries)
          .where(and(eq(entries.catalogueId, catalogue.id), isNull(entries.deleted)))
      : []
    try {
      return { ...planImport({ columns, body, first, plan, fields, entries: there, fileNamed: await fileNames() }), name }
    } catch (error) {
      if (error instanceof PlanFault) throw new Problem(422, 'It cannot come in so.', error.message, { field: 'mapping' })
      throw error
    }
  }

  async function noteRows(tx: Queryable, importId: string, rows: { entryId: string; before: Values | null; revision: number }[]) {
    await insertMany(
      tx,
      entryImportRows,
      rows.map(row => ({ importId, ...row })),
    )
  }

  async function writeStretch(importId: string, catalogueId: string, rows: Planned['rows']): Promise<void> {
    await db.transaction(async tx => {
      const catalogue = await holdCatalogue(tx, catalogueId)
      const fresh = rows.filter(({ entry }) => entry === undefined)
      const made = fresh.length
        ? await insertEntries(
            tx,
            catalogue,
            fresh.map(({ values }) => values),
          )
        : []
      const changes = rows.filter(({ entry }) => entry !== undefined)
      const before = new Map(
        (
          await holdEntries(
            tx,
            catalogueId,
            changes.map(({ entry }) => entry!),
          )
        ).map(row => [row.id, row]),
      )
      // One that was put in the bin meanwhile stays there.
      const written = changes.filter(({ entry }) => before.has(entry!)).map(({ entry, values }) => ({ id: entry!, values }))
      if (written.length) {
        await tx.execute(sql`update ${entries} set "values" = new."values", revision = ${entries.revision} + 1, changed = now()
          from jsonb_to_recordset(${JSON.stringify(written)}::jsonb) as new(id text, "values" jsonb) where ${entries.id} = new.id`)
        await recordEntryFiles(tx, catalogue.fields, 'draft', written)
      }
      await noteRows(tx, importId, [
        ...made.map(({ id }) => ({ entryId: id, before: null, revision: 1 })),
        ...written.map(({ id }) => ({ entryId: id, before: before.get(id)!.values, revision: before.get(id)!.revision + 1 })),
      ])
    })
    await turn()
  }

  /** Takes back what an import changed, as far as nobody has changed it since. */
  async function takeBack(id: string): Promise<{ changedSince: number }> {
    const [row] = await db.select({ catalogueId: entryImports.catalogueId }).from(entryImports).where(eq(entryImports.id, id))
    if (!row) throw notFound('import')
    let changedSince = 0
    if (row.catalogueId !== null) {
      const catalogueId = row.catalogueId
      for (;;) {
        const left = await db.transaction(async tx => {
          const { fields } = await holdCatalogue(tx, catalogueId)
          const some = await tx.select().from(entryImportRows).where(eq(entryImportRows.importId, id)).limit(AT_ONCE)
          if (!some.length) return 0
          const now = new Map(
            (
              await holdEntries(
                tx,
                catalogueId,
                some.map(({ entryId }) => entryId),
              )
            ).map(entry => [entry.id, entry]),
          )
          const untouched = some.filter(({ entryId, revision }) => now.get(entryId)?.revision === revision)
          changedSince += some.filter(({ entryId }) => now.has(entryId)).length - untouched.length
          const gone = untouched.filter(({ before }) => before === null).map(({ entryId }) => entryId)
          if (gone.length) await tx.delete(entries).where(sql`${entries.id} = any(${sql.param(gone)}::text[])`)
          const back = untouched.flatMap(({ entryId, before }) => (before ? [{ id: entryId, values: before }] : []))
          if (back.length) {
            await tx.execute(sql`update ${entries} set "values" = new."values", revision = ${entries.revision} + 1, changed = now()
              from jsonb_to_recordset(${JSON.stringify(back)}::jsonb) as new(id text, "values" jsonb) where ${entries.id} = new.id`)
            await recordEntryFiles(tx, fields, 'draft', back)
          }
          const done = some.map(({ entryId }) => entryId)
          await tx
            .delete(entryImportRows)
            .where(and(eq(entryImportRows.importId, id), sql`${entryImportRows.entryId} = any(${sql.param(done)}::text[])`))
          return some.length
        })
        await turn()
        if (!left) break
      }
    }
    await db.delete(entryImports).where(eq(entryImports.id, id))
    return { changedSince }
  }

  /** Gives the catalogue the fields that the table needs, and notes that rows are coming. */
  async function begin(id: string, plan: ImportPlan, { fields, counts, key }: Planned): Promise<string> {
    const isNew = plan.catalogue === null
    return db.transaction(async tx => {
      const catalogueId = plan.catalogue ?? (await catalogueService.createIn(tx, { name: plan.name, one: plan.one, fields }))
      const before = await holdCatalogue(tx, catalogueId)
      if (JSON.stringify(before.fields) !== JSON.stringify(fields))
        await tx
          .update(catalogues)
          .set({ fields, revision: before.revision + 1 })
          .where(eq(catalogues.id, catalogueId))
      if (isNew && key !== TITLE) await tx.update(catalogues).set({ key }).where(eq(catalogues.id, catalogueId))
      await tx.update(entryImports).set({ catalogueId, state: 'running', counts }).where(eq(entryImports.id, id))
      return catalogueId
    })
  }

  async function run(
    id: string,
    catalogueId: string,
    { rows, others }: Planned,
    plan: ImportPlan,
    job: JobItem,
    signal: AbortSignal,
  ): Promise<void> {
    job.total = rows.length
    try {
      for (let at = 0; at < rows.length; at += AT_ONCE) {
        signal.throwIfAborted()
        const some = rows.slice(at, at + AT_ONCE)
        await writeStretch(id, catalogueId, some)
        job.done = at + some.length
      }
      if (plan.others === 'bin' && others.length)
        await db
          .update(entries)
          .set({ deleted: new Date() })
          .where(and(eq(entries.catalogueId, catalogueId), isNull(entries.deleted), sql`${entries.id} = any(${sql.param(others)}::text[])`))
      await db.update(entryImports).set({ state: 'done', rows: [] }).where(eq(entryImports.id, id))
    } catch (error) {
      await takeBack(id)
      throw error
    }
  }

  return {
    /**
     * Reads a table and says what its columns most likely are; nothing comes in.
     *
     * @throws Problem 413 where it is too large, 422 where it is none
     */
    async look(stream: Readable, name: string, catalogueId: string | null): Promise<ImportLook> {
      const path = incoming(newId())
      try {
        await keep(Readable.from(upTo(stream)), path)
        const answer = await grid.ask({ path, name }).catch((error: Error) => ({ fault: error.message }))
        if ('fault' in answer) throw unreadable(answer.fault)
        const { names, body } = withHeading(answer.rows)
        if (!body.length) throw unreadable('There is a heading and nothing below it.')
        const columns = columnsOf(names, body)
        const catalogue = catalogueId === null ? undefined : await catalogueItem(db, catalogueId)
        const id = newId()
        await db.insert(entryImports).values({ id, catalogueId, name: name.slice(0, 200), state: 'looked', rows: answer.rows, columns })
        return {
          id,
          name,
          columns,
          rows: body.length,
          plan: { ...firstPlan(columns, body, catalogue), ...(catalogue ? {} : namesFrom(name)) },
        }
      } finally {
        await rm(path, { force: true })
      }
    },

    /** What would come of a table. @throws Problem 422 where the plan cannot be */
    async forecast(id: string, plan: ImportPlan): Promise<ImportForecast> {
      const { fields, rows, counts, wrong } = await planned(db, id, plan)
      const titles = await db.select({ id: files.id, title: files.title }).from(files)
      const titleById = new Map(titles.map(each => [each.id, each.title]))
      const samples = rows
        .slice(0, SAMPLES)
        .map(({ values }) =>
          Object.fromEntries(fields.map(field => [field.name, writeCell(field, values[field.id], file => titleById.get(file) ?? '')])),
        )
      return { counts, wrong, fields, samples }
    },

    /**
     * Brings a table in; goes on after its request.
     *
     * @throws Problem 422 where cells are wrong and `despite` is not set, or nothing would come in
     */
    async bring(id: string, plan: ImportPlan, by: string): Promise<{ job: JobItem; catalogue: string }> {
      const all = await planned(db, id, plan)
      if (plan.catalogue === null && (!plan.name || !plan.one))
        throw new Problem(422, 'The new catalogue has no name.', 'Say what its entries are called, all and one.', { field: 'name' })
      const { counts } = all
      if ((counts.wrong || counts.left) && !plan.despite)
        throw new Problem(422, 'Some cells cannot come in.', 'Look at them, or bring in the rest all the same.', {
          wrong: all.wrong,
          counts,
        })
      if (plan.catalogue === null && !counts.new)
        throw new Problem(422, 'There is nothing in it to bring in.', 'Look at what is wrong with its rows.')
      const catalogue = await begin(id, plan, all)
      const job = jobs.start({ kind: 'entries', name: all.name, unit: 'entries', by }, (item, signal) =>
        run(id, catalogue, all, plan, item, signal),
      )
      return { job, catalogue }
    },

    /** What was brought into a catalogue, the newest first. */
    async list(catalogueId: string): Promise<ImportItem[]> {
      const rows = await db
        .select()
        .from(entryImports)
        .where(and(eq(entryImports.catalogueId, catalogueId), eq(entryImports.state, 'done')))
        .orderBy(desc(entryImports.created))
        .limit(20)
      return rows.map(({ id, name, counts, created }) => ({
        id,
        name,
        catalogue: catalogueId,
        counts: counts!,
        created: created.toISOString(),
      }))
    },

    /** Takes an import back as one; what was changed since stays, and is counted. @throws Problem 404 */
    undo: takeBack,

    /** Takes back what an earlier process did not get to the end of. */
    async resume(): Promise<void> {
      for (const { id } of await db.select({ id: entryImports.id }).from(entryImports).where(eq(entryImports.state, 'running')))
        await takeBack(id)
    },

    /** Forgets tables that were looked at and never brought in. */
    async tidy(): Promise<void> {
      await db
        .delete(entryImports)
        .where(and(eq(entryImports.state, 'looked'), lt(entryImports.created, new Date(Date.now() - LOOKED_FOR))))
    },

    close: grid.close,
  }
}
export type Importing = ReturnType<typeof createImporting>
