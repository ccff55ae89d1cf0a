import { rm } from 'node:fs/promises'
import { setImmediate as turn } from 'node:timers/promises'
import { Readable } from 'node:stream'
import { and, desc, eq, gt, isNull, lt, sql } from 'drizzle-orm'
import { TITLE, newField, type Field } from '../../../core/catalogue/field'
import type { ImportForecast, ImportItem, ImportLook, ImportPlan, TableSource } from '../../../core/catalogue/import'
import { namesFrom, type Planned } from '../../../core/catalogue/planning'
import { planFromSource, sourceOf } from '../../../core/catalogue/tableSource'
import { writeCell } from '../../../core/catalogue/values'
import { formatSize } from '../../../core/files/size'
import { fold } from '../../../core/find/fold'
import { newId } from '../../../core/id'
import type { JobItem } from '../../../core/jobs/jobItem'
import { Problem, notFound } from '../../../core/problem'
import { among } from '../../db/among'
import type { Database, Queryable } from '../../db/connection'
import { insertMany } from '../../db/insertMany'
import { catalogues, editions, entries, entryImportRows, entryImports, files, pages } from '../../db/schema'
import type { GridAnswer, GridTask } from '../../workers/grid'
import type { Store } from '../../store/store'
import { getFile, mustBeStored } from '../files/items'
import type { Jobs } from '../jobs/jobs'
import { keep } from '../uploads/keep'
import { createAsker, workerScript } from '../workerHost'
import type { Catalogues } from './catalogues'
import { catalogueItem, holdCatalogue, mustHaveMany } from './catalogueRows'
import { holdEntries, insertEntries, mustBeUnique, restoreEntries, writeValues } from './entryWriting'

/** Bytes of a table that is brought in. */
const MOST = 60_000_000
/** Milliseconds in which a table has to be read. */
const PATIENCE = 60_000
/** What would come of a table; `revision` is that of the fields it was held against, `of` the edition it is. */
type Found = Planned & Pick<typeof entryImports.$inferSelect, 'name' | 'columns' | 'fileId' | 'edition'> & { revision: number | undefined }

/** Entries in one transaction: visitors' questions come in between. */
const AT_ONCE = 500
const SAMPLES = 5
/** Milliseconds that a table is kept which was looked at and not brought in. */
const LOOKED_FOR = 24 * 60 * 60 * 1000

const tooLarge = () => new Problem(413, 'That is too much at once.', `Bring a table of at most ${formatSize(MOST)}.`)

async function* upTo(stream: Readable): AsyncGenerator<Buffer> {
  let seen = 0
  for await (const chunk of stream as AsyncIterable<Buffer>) {
    seen += chunk.length
    if (seen > MOST) throw tooLarge()
    yield chunk
  }
}

const unreadable = (fault: string) =>
  new Problem(422, 'This table could not be read.', `${fault} Bring CSV, XLSX, ODS or JSON, with a heading above each column.`)

interface Needs {
  catalogues: Catalogues
  jobs: Jobs
  store: Pick<Store, 'withFile'>
  incoming: (id: string) => string
}

/**
 * Brings tables in as entries: looked at first, written in stretches, taken back as one.
 *
 * @param incoming where a file lies that is coming in
 */
export function createImporting(db: Database, { catalogues: catalogueService, jobs, store, incoming }: Needs) {
  const grid = createAsker<GridTask, GridAnswer>(workerScript('grid'), PATIENCE)

  /** Files of the library by the names that tables call them: that of the file, its title, the end of its address. */
  async function fileNames(): Promise<Map<string, string>> {
    const rows = await db
      .select({ id: files.id, title: files.title, handle: files.handle, fileName: editions.fileName })
      .from(files)
      .innerJoin(editions, and(eq(editions.fileId, files.id), eq(editions.number, files.edition)))
      .where(isNull(files.deleted))
    const named = new Map<string, string>()
    for (const { id, title, handle, fileName } of rows)
      for (const name of [title, handle, fileName]) if (!named.has(fold(name))) named.set(fold(name), id)
    for (const { id, fileName } of rows) named.set(fold(fileName), id)
    return named
  }

  async function lookedAt(id: string) {
    const [row] = await db.select().from(entryImports).where(eq(entryImports.id, id))
    if (!row || row.state !== 'looked') throw notFound('table')
    return row
  }

  const newFields = (): Field[] => [newField(TITLE, 'Name')]

  /** What a plan makes of a table, with the entries as they are. @throws Problem 422 where it cannot be */
  async function planned(q: Queryable, id: string, plan: ImportPlan): Promise<Found> {
    const { rows, columns, name, fileId, edition } = await lookedAt(id)
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
    const answer = await grid.ask({ ask: 'plan', table: { columns, plan, fields, entries: there }, rows, files: await fileNames() })
    if ('refused' in answer) throw new Problem(422, 'It cannot come in so.', answer.refused, { field: 'mapping' })
    if (!('planned' in answer)) throw new Error('A table was not held against its plan.')
    return { ...answer.planned, name, columns, fileId, edition, revision: catalogue?.revision }
  }

  async function lookAt(
    path: string,
    name: string,
    catalogueId: string | null,
    of?: Pick<TableSource, 'file' | 'edition'>,
  ): Promise<ImportLook> {
    const catalogue = catalogueId === null ? undefined : await catalogueItem(db, catalogueId)
    if (catalogue) mustHaveMany(catalogue, 'A table goes into another catalogue.')
    const answer = await grid.ask({ ask: 'read', path, name, catalogue }).catch((error: Error) => ({ fault: error.message }))
    if (!('read' in answer)) throw unreadable('fault' in answer ? answer.fault : '')
    const { rows, columns, count, plan: first } = answer.read
    const id = newId()
    const known = { fileId: of?.file ?? null, edition: of?.edition ?? null }
    await db.insert(entryImports).values({ id, catalogueId, name: name.slice(0, 200), state: 'looked', rows, columns, ...known })
    const source = catalogue?.source
    const plan =
      catalogue && source && source.file === of?.file
        ? planFromSource(first, columns, source, catalogue.fields)
        : { ...first, ...(catalogue ? {} : namesFrom(name)) }
    return { id, name, columns, rows: count, ofLibrary: of !== undefined, plan }
  }

  type Noted = Omit<typeof entryImportRows.$inferSelect, 'importId'>
  const noteRows = (tx: Queryable, importId: string, rows: Noted[]) =>
    insertMany(
      tx,
      entryImportRows,
      rows.map(row => ({ importId, ...row })),
    )

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
      const there = rows.flatMap(({ entry }) => entry ?? [])
      const held = there.length ? await holdEntries(tx, catalogueId, there) : []
      const read = new Map(rows.map(row => [row.entry, row.read]))
      // What somebody wrote into other cells meanwhile stays; one that was put in the bin stays there.
      const written = held.map(({ id, values }) => ({ id, values: { ...values, ...read.get(id) } }))
      await writeValues(tx, catalogue.fields, written)
      await mustBeUnique(
        tx,
        catalogue,
        [...made, ...written].map(({ id }) => id),
      )
      await noteRows(tx, importId, [
        ...made.map(({ id }) => ({ entryId: id, before: null, revision: 1, binned: false })),
        ...held.map(({ id, values, revision }) => ({ entryId: id, before: values, revision: revision + 1, binned: false })),
      ])
    })
    await turn()
  }

  /** Puts entries in the bin that the table does not have. */
  async function binOthers(importId: string, catalogueId: string, ids: string[]): Promise<void> {
    await db.transaction(async tx => {
      await holdCatalogue(tx, catalogueId)
      const held = await holdEntries(tx, catalogueId, ids)
      if (!held.length) return
      const gone = held.map(({ id }) => id)
      await tx.update(entries).set({ deleted: new Date() }).where(among(entries.id, gone))
      await noteRows(
        tx,
        importId,
        held.map(({ id, values, revision }) => ({ entryId: id, before: values, revision, binned: true })),
      )
    })
  }

  /** Takes back a stretch of what an import changed; gives how many rows that were, and how many others have changed since. */
  async function takeBackSome(tx: Queryable, importId: string, catalogueId: string): Promise<{ rows: number; changedSince: number }> {
    const { fields } = await holdCatalogue(tx, catalogueId)
    const some = await tx.select().from(entryImportRows).where(eq(entryImportRows.importId, importId)).limit(AT_ONCE)
    if (!some.length) return { rows: 0, changedSince: 0 }
    const ids = some.map(({ entryId }) => entryId)
    const now = new Map((await holdEntries(tx, catalogueId, ids)).map(entry => [entry.id, entry]))
    const changed = some.filter(({ binned }) => !binned)
    const untouched = changed.filter(({ entryId, revision }) => now.get(entryId)?.revision === revision)
    const made = untouched.filter(({ before }) => before === null).flatMap(({ entryId }) => now.get(entryId)!)
    const [seen, unseen] = [made.filter(({ live }) => live), made.filter(({ live }) => !live)].map(rows => rows.map(({ id }) => id))
    if (unseen!.length) await tx.delete(entries).where(among(entries.id, unseen!))
    // What visitors have seen does not go for good.
    if (seen!.length) await tx.update(entries).set({ deleted: new Date() }).where(among(entries.id, seen!))
    await writeValues(
      tx,
      fields,
      untouched.flatMap(({ entryId, before }) => (before ? [{ id: entryId, values: before }] : [])),
    )
    const binned = some.filter(row => row.binned).map(({ entryId }) => entryId)
    if (binned.length) await restoreEntries(tx, catalogueId, binned)
    await tx.delete(entryImportRows).where(and(eq(entryImportRows.importId, importId), among(entryImportRows.entryId, ids)))
    return { rows: some.length, changedSince: changed.filter(({ entryId }) => now.has(entryId)).length - untouched.length }
  }

  /** Takes back what an import changed, as far as nobody has changed it since. */
  async function takeBack(id: string): Promise<{ changedSince: number }> {
    const [row] = await db.select({ catalogueId: entryImports.catalogueId }).from(entryImports).where(eq(entryImports.id, id))
    if (!row) throw notFound('import')
    const { catalogueId } = row
    let changedSince = 0
    while (catalogueId !== null) {
      const back = await db.transaction(tx => takeBackSome(tx, id, catalogueId))
      if (!back.rows) break
      changedSince += back.changedSince
      await turn()
    }
    await db.delete(entryImports).where(eq(entryImports.id, id))
    return { changedSince }
  }

  /** Takes back what came to no end, with the catalogue that was made for it where nothing else is in that. */
  async function takeBackWholly(id: string): Promise<void> {
    const [row] = await db
      .select({ catalogueId: entryImports.catalogueId, created: entryImports.created })
      .from(entryImports)
      .where(eq(entryImports.id, id))
    await takeBack(id)
    const made = row?.catalogueId
    if (!made) return
    const isEmpty = sql`not exists (select 1 from ${entries} where ${entries.catalogueId} = ${made})
      and not exists (select 1 from ${pages} where ${pages.catalogueId} = ${made})`
    // One that was there when the table was looked at is its owner's, however empty.
    await db.delete(catalogues).where(and(eq(catalogues.id, made), gt(catalogues.created, row.created), isEmpty))
  }

  /**
   * Gives the catalogue the fields that the table needs, and notes that rows are coming.
   *
   * @throws Problem 409 where the table is coming in already, or the fields were changed since it was looked at
   */
  async function begin(id: string, plan: ImportPlan, found: Found): Promise<string> {
    const { fields, counts, key, revision } = found
    const isNew = plan.catalogue === null
    return db.transaction(async tx => {
      const catalogueId = plan.catalogue ?? (await catalogueService.createIn(tx, { name: plan.name, one: plan.one, fields }))
      const before = await holdCatalogue(tx, catalogueId)
      if (!isNew && before.revision !== revision)
        throw new Problem(409, 'The fields were changed meanwhile.', 'Look at the table once more.')
      if (JSON.stringify(before.fields) !== JSON.stringify(fields))
        await tx
          .update(catalogues)
          .set({ fields, revision: before.revision + 1 })
          .where(eq(catalogues.id, catalogueId))
      if (isNew && key !== TITLE) await tx.update(catalogues).set({ key }).where(eq(catalogues.id, catalogueId))
      const begun = await tx
        .update(entryImports)
        .set({ catalogueId, state: 'running', counts })
        .where(and(eq(entryImports.id, id), eq(entryImports.state, 'looked')))
        .returning({ id: entryImports.id })
      if (!begun.length) throw new Problem(409, 'This table is coming in already.', 'Wait until it is in.')
      return catalogueId
    })
  }

  /** Notes that all of a table is in, and that its file is followed where that was said. */
  async function finish(id: string, catalogueId: string, { fields, columns, fileId, edition }: Found, plan: ImportPlan): Promise<void> {
    await db.transaction(async tx => {
      const before = await holdCatalogue(tx, catalogueId)
      const source = fileId && edition !== null && plan.follow ? sourceOf({ file: fileId, edition }, columns, plan, fields) : null
      // A table from elsewhere, or one that is brought in this once, leaves the source that is followed as it is.
      if (source || before.source?.file === fileId) await tx.update(catalogues).set({ source }).where(eq(catalogues.id, catalogueId))
      await tx.update(entryImports).set({ state: 'done', rows: [] }).where(eq(entryImports.id, id))
    })
  }

  async function run(id: string, catalogueId: string, found: Found, plan: ImportPlan, job: JobItem, signal: AbortSignal): Promise<void> {
    const { rows, others } = found
    job.total = rows.length
    try {
      for (let at = 0; at < rows.length; at += AT_ONCE) {
        signal.throwIfAborted()
        const some = rows.slice(at, at + AT_ONCE)
        await writeStretch(id, catalogueId, some)
        job.done = at + some.length
      }
      if (plan.others === 'bin') await binOthers(id, catalogueId, others)
      await finish(id, catalogueId, found, plan)
    } catch (error) {
      await takeBackWholly(id)
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
        return await lookAt(path, name, catalogueId)
      } finally {
        await rm(path, { force: true })
      }
    },

    /**
     * Looks into a file of the library as a table, in its edition of today; one that is followed goes in as the last one did.
     *
     * @throws Problem 404, 413 where it is too large, 422 where it is none
     */
    async lookAtFile(fileId: string, catalogueId: string | null): Promise<ImportLook> {
      const file = mustBeStored(await getFile(db, fileId))
      if (file.size > MOST) throw tooLarge()
      return store.withFile(file.sha256, path => lookAt(path, file.fileName, catalogueId, { file: fileId, edition: file.edition }))
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
    async undo(id: string): Promise<{ changedSince: number }> {
      const { catalogueId, fileId, edition } = (await db.select().from(entryImports).where(eq(entryImports.id, id)))[0] ?? {}
      const back = await takeBack(id)
      // The edition that is no longer in is offered again.
      if (catalogueId && fileId)
        await db
          .update(catalogues)
          .set({ source: sql`jsonb_set(${catalogues.source}, '{edition}', '0')` })
          .where(
            and(
              eq(catalogues.id, catalogueId),
              sql`${catalogues.source} ->> 'file' = ${fileId} and (${catalogues.source} ->> 'edition')::int = ${edition}`,
            ),
          )
      return back
    },

    /** Takes back what an earlier process did not get to the end of. */
    async resume(): Promise<void> {
      for (const { id } of await db.select({ id: entryImports.id }).from(entryImports).where(eq(entryImports.state, 'running')))
        await takeBackWholly(id)
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
