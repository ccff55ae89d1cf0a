import { z } from 'zod'
import { useThrottleFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, reactive } from 'vue'
import { Upload, defaultOptions, type DetailedError } from 'tus-js-client'
import { clashSchema, type ClashWay } from '~~/core/files/clash'
import { fileItemSchema, type FileItem } from '~~/core/files/fileItem'
import { ask, wordsOf } from '~/composables/api'
import type { LocalFile } from '~/composables/localFiles'
import { useClashes } from './clashes'
import { useLibrary } from './library'
import { useNotices } from './notices'
import { useRights } from './rights'
import { useTray } from './tray'

const arrivedSchema = z.object({ file: fileItemSchema, twins: z.array(z.object({ id: z.string(), title: z.string() })) })
const clashesSchema = z.object({ clashes: z.array(clashSchema) })

export interface UploadEntry {
  id: number
  name: string
  /** bytes */
  size: number
  sent: number
  /** bytes a second, over the last few seconds */
  speed: number
  state: 'queued' | 'sending' | 'paused' | 'retrying' | 'failed' | 'done' | 'left over'
  error: string
  /** the button on a page that waits for it */
  placement?: string
}

/** A request carries this much, so that no time limit on the way cuts a long one. */
const CHUNK = 16 * 1000 * 1000
const RETRY_DELAYS = [0, 1000, 3000, 5000, 10_000, 20_000, 20_000, 20_000]
const storage = defaultOptions.urlStorage
/** Sent side by side; the others wait their turn. */
const AT_ONCE = 3
/** More arriving together are not each announced. */
const FEW = 5
/** Milliseconds in which arrivals are shown together. */
const TOGETHER = 400

/** Where files go, and what is done with them there. */
export interface Destination {
  /** null: the top of the library */
  folder?: string | null
  /** what becomes of files whose name is taken, by their path */
  ways?: Map<string, ClashWay>
  /** identity of the file they are the next edition of; it waits until it was looked at */
  edition?: string
  /** the buttons on a page that wait for them, in the order of the files */
  placements?: string[]
  /** they are meant for something that takes them itself, and are not picked up */
  meant?: boolean
  /** files of the library that are taken instead of sending these, by their order; asked before anything is sent */
  instead?: Promise<Map<number, FileItem>>
  done?: (item: FileItem, local: LocalFile) => unknown
}

/** Files on their way from the computer into the library. */
export const useUploads = defineStore('uploads', () => {
  const entries = reactive<UploadEntry[]>([])
  const running = new Map<number, Upload>()
  const queue: { entry: UploadEntry; begin: () => void }[] = []
  const leftOvers = new Map<number, string>()
  let last = 0

  const active = computed(() => entries.filter(entry => entry.state !== 'done'))
  const forPlacement = (placement: string) => entries.find(entry => entry.placement === placement && entry.state !== 'done')

  function drop(id: number) {
    running.delete(id)
    const index = entries.findIndex(entry => entry.id === id)
    if (index >= 0) entries.splice(index, 1)
    next()
  }

  /** Begins as many waiting uploads as may run. */
  function next() {
    while (queue.length && entries.filter(entry => entry.state === 'sending' || entry.state === 'retrying').length < AT_ONCE) {
      const { entry, begin } = queue.shift()!
      if (entry.state !== 'queued') continue
      entry.state = 'sending'
      begin()
    }
  }

  const refreshSoon = useThrottleFn(() => useLibrary().refresh().catch(useNotices().refused), TOGETHER, true)

  /** Asks which file an upload became, and tells the owner of files with the same bytes. */
  async function collect(url: string): Promise<FileItem> {
    const id = new URL(url, window.location.href).pathname.split('/').at(-1)
    const { file, twins } = await ask(arrivedSchema, `/uploads/${id}/file`)
    const library = useLibrary()
    library.learn([file])
    const [twin] = twins
    const few = entries.length <= FEW
    if (twin && few) {
      useNotices().say(`"${file.title}" holds the same bytes as "${twin.title}". They are stored once.`, {
        tone: 'attention',
        action: { label: 'Show that one', run: () => navigateTo(`/desk/files/${twin.id}`) },
      })
    }
    if (few) for (const remark of file.remarks) useNotices().say(`${file.fileName}: ${remark}`, { tone: 'attention' })
    void refreshSoon()
    return file
  }

  function messageOf(error: Error | DetailedError): string {
    const response = 'originalResponse' in error ? error.originalResponse : null
    return response?.getBody().trim() || (response ? `Trough answered ${response.getStatus()}.` : 'The connection was lost.')
  }

  function start(local: LocalFile, entry: UploadEntry, { folder, ways, edition, meant, done }: Destination) {
    const { file, path } = local
    let samples: { at: number; sent: number }[] = []
    const upload = new Upload(file, {
      endpoint: '/api/uploads',
      metadata: {
        filename: file.name,
        filetype: file.type,
        ...(folder && { folder }),
        ...(edition && { edition }),
        ...(path !== file.name && { relativePath: path }),
        ...(ways?.has(path) && { clash: ways.get(path)! }),
      },
      chunkSize: CHUNK,
      retryDelays: RETRY_DELAYS,
      removeFingerprintOnSuccess: true,
      onProgress(sent) {
        const now = performance.now()
        samples = [...samples.filter(sample => now - sample.at < 4000), { at: now, sent }]
        const first = samples[0]!
        entry.speed = now > first.at ? (sent - first.sent) / ((now - first.at) / 1000) : 0
        entry.sent = sent
        entry.state = 'sending'
      },
      onShouldRetry(error) {
        const status = error.originalResponse?.getStatus() ?? 0
        // A full disk or a refused name does not mend itself by trying again.
        const again = status === 0 || status === 409 || status === 423 || status === 500 || (status > 500 && status !== 507)
        if (again) entry.state = 'retrying'
        return again
      },
      onError(error) {
        entry.state = 'failed'
        entry.error = messageOf(error)
        next()
      },
      async onSuccess() {
        try {
          const item = await collect(upload.url!)
          entry.state = 'done'
          // What was dropped on a page or on a file has its place already.
          if (!entry.placement && !edition && !meant) useTray().pickUp(item.id)
          drop(entry.id)
          await done?.(item, local)
        } catch (error) {
          if (entry.state === 'done')
            useNotices().say(`${entry.name} is in the library, but could not be placed. ${wordsOf(error)}`, { tone: 'attention' })
          entry.state = 'failed'
          entry.error = wordsOf(error)
        }
      },
    })
    running.set(entry.id, upload)
    void upload.findPreviousUploads().then(([previous]) => {
      if (previous) upload.resumeFromPreviousUpload(previous)
      upload.start()
    })
  }

  /** Sends a file, unless one of the library is taken instead. */
  async function begin(local: LocalFile, entry: UploadEntry, destination: Destination, index: number) {
    const known = (await destination.instead)?.get(index)
    // It may have been taken back while that was asked.
    if (!entries.includes(entry)) return
    if (!known) return start(local, entry, destination)
    drop(entry.id)
    try {
      await destination.done?.(known, local)
    } catch (error) {
      useNotices().say(`${known.title} could not be placed. ${wordsOf(error)}`, { tone: 'attention' })
    }
  }

  /** Sends files; each is handed over as soon as it is in the library. */
  function add(files: LocalFile[], destination: Destination = {}) {
    files.forEach((local, index) => {
      const { name, size } = local.file
      const leftOver = entries.find(entry => entry.state === 'left over' && entry.name === name && entry.size === size)
      if (leftOver) drop(leftOver.id)
      entries.push({ id: ++last, name, size, sent: 0, speed: 0, state: 'queued', error: '', placement: destination.placements?.[index] })
      const entry = entries.at(-1)!
      queue.push({ entry, begin: () => void begin(local, entry, destination, index) })
    })
    next()
  }

  /** Asks what becomes of files whose names are taken in a folder. Gives those that go there; none where the owner would rather not. */
  async function sift(files: LocalFile[], folder: string | null): Promise<{ files: LocalFile[]; ways: Map<string, ClashWay> }> {
    const none = { files: [], ways: new Map<string, ClashWay>() }
    if (!files.length) return none
    try {
      const { clashes } = await ask(clashesSchema, '/files/clashes', 'POST', { folder, names: files.map(({ path }) => path) })
      const ways = clashes.length ? await useClashes().ask(clashes) : none.ways
      return ways ? { files: files.filter(({ path }) => ways.get(path) !== 'skip'), ways } : none
    } catch (error) {
      useNotices().say(`Nothing was put in. ${wordsOf(error)}`, { tone: 'attention' })
      return none
    }
  }

  /** Sends files into a folder; asks first what becomes of those whose names are taken there. */
  async function bring(given: LocalFile[], folder: string | null, done?: Destination['done']) {
    if (given.length && !useRights().mayIn('put', folder)) {
      useNotices().say('You may not put files in here. Ask the owner of the site for it.', { tone: 'attention' })
      return
    }
    const { files, ways } = await sift(given, folder)
    add(files, { folder, ways, done })
  }

  async function pause(entry: UploadEntry) {
    await running.get(entry.id)?.abort()
    entry.state = 'paused'
    entry.speed = 0
    next()
  }

  function resume(entry: UploadEntry) {
    entry.state = 'sending'
    entry.error = ''
    running.get(entry.id)?.start()
  }

  /** Stops an upload and removes what had arrived. */
  async function cancel(entry: UploadEntry) {
    const key = leftOvers.get(entry.id)
    if (key) {
      leftOvers.delete(entry.id)
      const stored = (await storage!.findAllUploads()).find(upload => upload.urlStorageKey === key)
      if (stored?.uploadUrl) await Upload.terminate(stored.uploadUrl).catch(() => undefined)
      await storage!.removeUpload(key)
    } else {
      await running
        .get(entry.id)
        ?.abort(true)
        .catch(() => undefined)
    }
    drop(entry.id)
  }

  /** Takes back everything that still waits its turn. */
  function cancelQueued() {
    for (const { entry } of queue.splice(0)) drop(entry.id)
  }

  /** After a reload: what had been begun waits for its file to be chosen again. */
  async function findLeftOvers() {
    for (const stored of await storage!.findAllUploads()) {
      const head =
        stored.uploadUrl &&
        (await fetch(stored.uploadUrl, { method: 'HEAD', headers: { 'Tus-Resumable': '1.0.0' } }).catch(() => undefined))
      if (!head) continue
      const [sent, size] = [Number(head.headers.get('Upload-Offset')), Number(head.headers.get('Upload-Length'))]
      if (!head.ok || sent === size) {
        await storage!.removeUpload(stored.urlStorageKey)
        if (head.ok) await collect(stored.uploadUrl!)
        continue
      }
      entries.push({ id: ++last, name: stored.metadata.filename ?? 'A file', size, sent, speed: 0, state: 'left over', error: '' })
      leftOvers.set(last, stored.urlStorageKey)
    }
  }

  return { entries, active, forPlacement, add, sift, bring, cancelQueued, pause, resume, cancel, findLeftOvers }
})
