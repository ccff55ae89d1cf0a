import type { IncomingMessage, ServerResponse } from 'node:http'
import { Server } from '@tus/server'
import type { FileItem } from '../../../core/files/item'
import { newId } from '../../../core/id'
import { innerPath } from '../../../core/files/innerPath'
import { TOP } from '../../../core/folders/item'
import { Problem, notFound } from '../../../core/problem'
import type { Journal } from '../account/journal'
import type { LibraryService } from '../library/library'
import { CHECKSUM_ALGORITHMS, ChunkChecksum } from './checksum'
import type { IncomingStore } from './incoming'
import { sending, whileSending } from './sending'

const PATH = '/api/uploads'

type Metadata = Record<string, string | null | undefined>
const folderOf = ({ folder }: Metadata) => !folder || folder === TOP ? null : folder

/** The folders of `relativePath`, such as "manuals/2026/K60.pdf"; a path that leads elsewhere gives none. */
function withinOf({ relativePath }: Metadata): string[] {
  const path = relativePath ? innerPath(relativePath) : undefined
  return path && 'folders' in path ? path.folders : []
}

/** Resumable uploads by the tus 1.0 protocol; a finished one becomes a file of the library. */
export function createUploadService(incoming: IncomingStore, library: LibraryService, journal: Pick<Journal, 'note'>) {
  /** Makes a file of a whole upload; again and again gives the same file. */
  async function finish(id: string): Promise<FileItem> {
    const record = await incoming.record(id)
    if (!record) throw notFound('upload')
    const { size, metadata, whole } = await incoming.complete(record)
    return library.ingest({
      path: incoming.partOf(id), size, ...whole, uploadId: id,
      fileName: metadata.filename || metadata.name || 'file',
      folder: folderOf(metadata), within: withinOf(metadata), asEdition: metadata.clash === 'edition',
      // It is held against the one that visitors get before it takes over.
      ...metadata.edition && { editionOf: metadata.edition, waits: true },
      by: metadata.by ?? '',
    })
  }

  /** Refuses an edition before a byte of it is sent, where there is nothing it could be one of. */
  async function mayFollow(id: string): Promise<void> {
    const file = await library.get(id).catch(() => {
      throw { status_code: 404, body: 'The file this is an edition of is gone. Put it in as a file of its own.' }
    })
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
      if (!upload.metadata?.filename && !upload.metadata?.name) throw { status_code: 400, body: 'Send the file\'s name as "filename" in Upload-Metadata.' }
      const folder = folderOf(upload.metadata)
      if (folder) {
        await library.folders.get(folder).catch(() => {
          throw { status_code: 404, body: 'There is no such folder. Leave "folder" out to put the file at the top of the library.' }
        })
      }
      if (upload.metadata?.edition) await mayFollow(upload.metadata.edition)
      // Whatever the sender says: it is who is signed in.
      return { metadata: { ...upload.metadata, by: sending()?.by ?? '' } }
    },
    async onUploadFinish(_request, upload) {
      try {
        const file = await finish(upload.id)
        journal.note('uploaded', { who: sending()?.by ?? '', about: file.id })
        return { headers: { 'Trough-File': file.id } }
      }
      catch (error) {
        if (error instanceof Problem) throw { status_code: error.status, body: error.message }
        throw error
      }
    },
  })

  return {
    /**
     * Answers one request of the protocol.
     *
     * @param by e-mail of who sends it
     */
    async handle(request: IncomingMessage, response: ServerResponse, by = ''): Promise<void> {
      if (request.method === 'OPTIONS') response.setHeader('Tus-Checksum-Algorithm', CHECKSUM_ALGORITHMS.join(','))
      const header = request.headers['upload-checksum']
      const checksum = typeof header === 'string' ? ChunkChecksum.parse(header) : undefined
      if (header !== undefined && !checksum) {
        response.writeHead(400, { 'Tus-Resumable': '1.0.0', 'Content-Type': 'text/plain' })
          .end(`Upload-Checksum needs one of ${CHECKSUM_ALGORITHMS.join(', ')}, a space and the checksum in Base64.`)
        return
      }
      await whileSending({ by, checksum }, () => server.handle(request, response))
    },

    /** The file a whole upload became; makes it where a fault had kept it from being made. */
    async fileOf(id: string): Promise<FileItem> {
      const upload = await incoming.getUpload(id).catch(() => { throw notFound('upload') })
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
      for (const { id } of await incoming.all()) {
        try {
          const { offset, size } = await incoming.getUpload(id)
          if (offset === size && !await library.fileOfUpload(id)) await finish(id)
        }
        catch (error) {
          failures.push(error)
        }
      }
      if (failures.length) throw new AggregateError(failures, `${failures.length} finished uploads could not be put into the library.`)
    },

    dropExpired: () => incoming.deleteExpired(),
  }
}
