import type { IncomingMessage, ServerResponse } from 'node:http'
import { Server } from '@tus/server'
import { ERRORS, Metadata } from '@tus/utils'
import { isDiskFull } from '../../../core/diskFull'
import type { FileItem } from '../../../core/files/fileItem'
import { newId } from '../../../core/id'
import { innerPath } from '../../../core/files/innerPath'
import { TOP } from '../../../core/folders/folderItem'
import { Problem, notFound } from '../../../core/problem'
import type { Journal } from '../account/journal'
import { log } from '../../log'
import type { LibraryService } from '../library/library'
import type { Access } from '../rights/access'
import { CHECKSUM_ALGORITHMS, ChunkChecksum } from './checksum'
import type { IncomingStore } from './incoming'
import { sending, whileSending } from './sending'

const PATH = '/api/uploads'
const VERSION = '1.0.0'
const EXTENSIONS = 'creation,creation-with-upload,creation-defer-length,termination,checksum,expiration,concatenation'
const PARTIAL = 'partial'
const EDITION_OF_NOTHING = 'The file this is an edition of is gone. Put it in as a file of its own.'
const NO_FOLDER = 'There is no such folder. Leave "folder" out to put the file at the top of the library.'

/** Says what is missing where something is; another failure stays what it is. */
const insteadOfMissing =
  (body: string) =>
  (error: unknown): never => {
    throw error instanceof Problem && error.status === 404 ? { status_code: 404, body } : error
  }

type Metadata = Record<string, string | null | undefined>
const folderOf = ({ folder }: Metadata) => (!folder || folder === TOP ? null : folder)

/** The folders of `relativePath`, such as "manuals/2026/K60.pdf"; a path that leads elsewhere gives none. */
function withinOf({ relativePath }: Metadata): string[] {
  const path = relativePath ? innerPath(relativePath) : undefined
  return path && 'folders' in path ? path.folders : []
}

/** Resumable uploads by the tus 1.0 protocol; a finished one becomes a file of the library. */
export function createUploadService(incoming: IncomingStore, library: LibraryService, journal: Pick<Journal, 'note'>) {
  const finishing = new Map<string, Promise<FileItem>>()

  /** Makes a file of a whole upload; again and again, also at once, gives the same file. */
  function finish(id: string): Promise<FileItem> {
    const known = finishing.get(id) ?? finishOnce(id).finally(() => finishing.delete(id))
    finishing.set(id, known)
    return known
  }

  async function finishOnce(id: string): Promise<FileItem> {
    const record = await incoming.record(id)
    if (!record) throw notFound('upload')
    const { size, metadata, whole } = await incoming.complete(record)
    return library.ingest({
      path: incoming.partOf(id),
      size,
      ...whole,
      uploadId: id,
      fileName: metadata.filename || metadata.name || 'file',
      folder: folderOf(metadata),
      within: withinOf(metadata),
      asEdition: metadata.clash === 'edition',
      // It is held against the one that visitors get before it takes over.
      ...(metadata.edition && { editionOf: metadata.edition, waits: true }),
      by: metadata.by ?? '',
    })
  }

  /** Refuses before a byte is sent what may not be put there, or followed by an edition. */
  async function mayArrive(metadata: Metadata): Promise<void> {
    const { access } = sending()!
    try {
      if (metadata.edition) return await access.mustFiles('renew', [metadata.edition])
      const folder = folderOf(metadata)
      access.mustPlace('put', folder)
      if (metadata.clash === 'edition') access.mustPlace('renew', folder)
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      const missing = metadata.edition ? EDITION_OF_NOTHING : NO_FOLDER
      throw { status_code: error.status, body: error.status === 404 ? missing : error.message }
    }
  }

  /** Refuses an edition before a byte of it is sent, where there is nothing it could be one of. */
  async function mayFollow(id: string): Promise<void> {
    const file = await library.get(id).catch(insteadOfMissing(EDITION_OF_NOTHING))
    if (file.bundle) throw { status_code: 422, body: 'A bundle has no editions. Put the file into the bundle instead.' }
  }

  const server = new Server({
    path: PATH,
    datastore: incoming,
    relativeLocation: true,
    // The desk is on the same origin; nobody else may send.
    allowedOrigins: [],
    namingFunction: () => newId(20),
    async onUploadCreate(_request, upload) {
      // One of several parts becomes no file of its own.
      if (sending()?.concat === PARTIAL) return { metadata: upload.metadata }
      if (!upload.metadata?.filename && !upload.metadata?.name)
        throw { status_code: 400, body: 'Send the file\'s name as "filename" in Upload-Metadata.' }
      const folder = folderOf(upload.metadata)
      await mayArrive(upload.metadata)
      if (folder) {
        await library.folders.get(folder).catch(insteadOfMissing(NO_FOLDER))
      }
      if (upload.metadata?.edition) await mayFollow(upload.metadata.edition)
      // Whatever the sender says: it is who is signed in.
      return { metadata: { ...upload.metadata, by: sending()?.by ?? '' } }
    },
    onResponseError(_request, error) {
      if ('status_code' in error)
        return { status_code: error.status_code, body: error.body.endsWith('\n') ? error.body : `${error.body}\n` }
      // What a disk or a database says is for the log: it may name places of this machine.
      log.error({ err: error }, 'an upload failed')
      return isDiskFull(error)
        ? { status_code: 507, body: 'The disk is full. Free some space, then resume.\n' }
        : { status_code: 500, body: 'Something went wrong here. Try again.\n' }
    },
    async onUploadFinish(_request, upload) {
      if ((await incoming.record(upload.id))?.concat === PARTIAL) return {}
      try {
        const file = await finish(upload.id)
        journal.note('uploaded', { who: sending()?.by ?? '', about: file.id })
        return { headers: { 'Trough-File': file.id } }
      } catch (error) {
        if (error instanceof Problem) throw { status_code: error.status, body: error.message }
        throw error
      }
    },
  })

  /** What is refused by the protocol itself; undefined where nothing is. */
  function refusalOf({ method, headers }: IncomingMessage): { status: number; body: string; headers?: Record<string, string> } | undefined {
    if (method === 'OPTIONS') {
      return {
        status: 204,
        body: '',
        headers: {
          'Tus-Version': VERSION,
          'Tus-Extension': EXTENSIONS,
          'Tus-Checksum-Algorithm': CHECKSUM_ALGORITHMS.join(','),
          'Allow': 'OPTIONS, POST, HEAD, PATCH, DELETE',
        },
      }
    }
    // Core protocol, Tus-Resumable: the server must say which versions it speaks, and do nothing else.
    if (headers['tus-resumable'] !== VERSION)
      return { status: 412, body: `Send "Tus-Resumable: ${VERSION}".\n`, headers: { 'Tus-Version': VERSION } }
    if (method === 'PATCH' && headers['content-type']?.split(';')[0]!.trim().toLowerCase() !== 'application/offset+octet-stream')
      return { status: 415, body: 'Send the bytes as application/offset+octet-stream.\n' }
    const checksum = headers['upload-checksum']
    if (checksum !== undefined && (typeof checksum !== 'string' || !ChunkChecksum.parse(checksum))) {
      return { status: 400, body: `Upload-Checksum needs one of ${CHECKSUM_ALGORITHMS.join(', ')}, a space and the checksum in Base64.\n` }
    }
    const concat = headers['upload-concat']
    if (concat !== undefined && concat !== PARTIAL && !/^final;\s*\S/.test(String(concat)))
      return { status: 400, body: 'Upload-Concat is "partial", or "final;" and the addresses of the parts.\n' }
    return undefined
  }

  const idIn = (address: string): string => address.split('?')[0]!.split('/').pop()!

  /** HEAD says what is put together of what (Concatenation). */
  async function tellConcat({ url }: IncomingMessage, response: ServerResponse): Promise<void> {
    const concat = (await incoming.record(idIn(url!)))?.concat
    if (concat !== undefined) response.setHeader('Upload-Concat', concat)
  }

  /** Answers a POST that puts whole parts together: the upload is finished with it (Concatenation). */
  async function putTogether(request: IncomingMessage, response: ServerResponse, concat: string): Promise<void> {
    const say = (status: number, body: string, headers: Record<string, string> = {}) =>
      void response.writeHead(status, { 'Tus-Resumable': VERSION, 'Cache-Control': 'no-store', ...headers }).end(body)
    try {
      const { 'upload-length': length, 'upload-metadata': told } = request.headers as Record<string, string | undefined>
      if (length !== undefined) return say(400, 'What is put together has the length of its parts: leave Upload-Length out.\n')
      const metadata = Metadata.parse(told)
      if (!metadata.filename && !metadata.name) return say(400, 'Send the file\'s name as "filename" in Upload-Metadata.\n')
      await mayArrive(metadata)
      if (metadata.edition) await mayFollow(metadata.edition)
      const id = newId(20)
      await incoming.concatenate(
        id,
        concat.slice('final;'.length).trim().split(/\s+/).map(idIn),
        { ...metadata, by: sending()?.by ?? '' },
        concat,
      )
      const file = await finish(id)
      say(201, '', { 'Location': `${PATH}/${id}`, 'Trough-File': file.id })
    } catch (error) {
      if (error instanceof Problem) return say(error.status, `${error.message}\n`)
      const { status_code: status, body } = error as { status_code?: number; body?: string }
      if (status === undefined) throw error
      say(status, `${body}\n`)
    }
  }

  return {
    /**
     * Answers one request of the protocol.
     *
     * @param access what may be done by who sends it
     */
    async handle(
      request: IncomingMessage,
      response: ServerResponse,
      access: Pick<Access, 'by' | 'mustPlace' | 'mustFiles'>,
    ): Promise<void> {
      // tus 1.0, X-HTTP-Method-Override: for clients that can do no more than POST.
      const instead = request.headers['x-http-method-override']
      if (
        request.method === 'POST' &&
        typeof instead === 'string' &&
        ['PATCH', 'DELETE', 'HEAD', 'OPTIONS'].includes(instead.toUpperCase())
      )
        request.method = instead.toUpperCase()
      const refused = refusalOf(request)
      if (refused)
        return void response
          .writeHead(refused.status, {
            'Tus-Resumable': VERSION,
            'Content-Type': 'text/plain; charset=utf-8',
            'Cache-Control': 'no-store',
            ...refused.headers,
          })
          .end(refused.body)
      const { 'upload-checksum': checksum, 'upload-concat': concat } = request.headers as Record<string, string | undefined>
      if (request.method === 'HEAD') await tellConcat(request, response)
      await whileSending(
        { by: access.by, access, concat, checksum: checksum === undefined ? undefined : ChunkChecksum.parse(checksum) },
        async () => {
          if (request.method === 'POST' && concat?.startsWith('final;')) await putTogether(request, response, concat)
          else await server.handle(request, response)
        },
      )
    },

    /** The file a whole upload became; makes it where a fault had kept it from being made. */
    async fileOf(id: string): Promise<FileItem> {
      const upload = await incoming.getUpload(id).catch((error: unknown) => {
        throw error === ERRORS.FILE_NOT_FOUND ? notFound('upload') : error
      })
      if (upload.offset !== upload.size) throw new Problem(409, 'This upload is not finished.', 'Resume it first.')
      return finish(id)
    },

    /**
     * After a start: clears away what was half made before `started`, and hands in what was whole.
     *
     * @throws AggregateError of what could not be handed in; it stays for the next start
     */
    async recover(started: Date): Promise<void> {
      await incoming.sweep(started)
      const failures: unknown[] = []
      for (const { id, concat } of await incoming.all()) {
        if (concat === PARTIAL) continue
        try {
          const { offset, size } = await incoming.getUpload(id)
          if (offset === size && !(await library.fileOfUpload(id))) await finish(id)
        } catch (error) {
          failures.push(error)
        }
      }
      if (failures.length) throw new AggregateError(failures, `${failures.length} finished uploads could not be put into the library.`)
    },

    dropExpired: () => incoming.deleteExpired(),
  }
}
