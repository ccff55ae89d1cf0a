import { defineStore } from 'pinia'
import { computed, reactive } from 'vue'
import { Upload, defaultOptions, type DetailedError } from 'tus-js-client'
import type { FileItem } from '~~/core/files/item'
import { api, wordsOf } from '~/composables/api'
import { useLibrary } from './library'
import { useNotices } from './notices'
import { useTray } from './tray'

export interface UploadEntry {
  id: number
  name: string
  /** bytes */
  size: number
  sent: number
  /** bytes a second, over the last few seconds */
  speed: number
  state: 'sending' | 'paused' | 'retrying' | 'failed' | 'done' | 'left over'
  error: string
  /** the button on a page that waits for it */
  placement?: string
}

/** A request carries this much, so that no time limit on the way cuts a long one. */
const CHUNK = 16 * 1000 * 1000
const RETRY_DELAYS = [0, 1000, 3000, 5000, 10_000, 20_000, 20_000, 20_000]
const storage = defaultOptions.urlStorage

/** Files on their way from the computer into the library. */
export const useUploads = defineStore('uploads', () => {
  const entries = reactive<UploadEntry[]>([])
  const running = new Map<number, Upload>()
  const leftOvers = new Map<number, string>()
  let last = 0

  const active = computed(() => entries.filter(entry => entry.state !== 'done'))
  const forPlacement = (placement: string) => entries.find(entry => entry.placement === placement && entry.state !== 'done')

  function drop(id: number) {
    running.delete(id)
    const index = entries.findIndex(entry => entry.id === id)
    if (index >= 0) entries.splice(index, 1)
  }

  /** Asks which file an upload became, and tells the owner of files with the same bytes. */
  async function collect(url: string): Promise<FileItem> {
    const id = new URL(url, window.location.href).pathname.split('/').at(-1)
    const { file, twins } = await api<{ file: FileItem, twins: { id: string, title: string }[] }>(`/uploads/${id}/file`)
    const library = useLibrary()
    library.learn([file])
    const [twin] = twins
    if (twin) {
      useNotices().say(`"${file.title}" holds the same bytes as "${twin.title}". They are stored once.`, {
        tone: 'attention',
        action: { label: 'Show that one', run: () => navigateTo(`/desk/files/${twin.id}`) },
      })
    }
    for (const remark of file.remarks) useNotices().say(`${file.fileName}: ${remark}`, { tone: 'attention' })
    await library.load()
    return file
  }

  function messageOf(error: Error | DetailedError): string {
    const response = 'originalResponse' in error ? error.originalResponse : null
    return response?.getBody().trim() || (response ? `Trough answered ${response.getStatus()}.` : 'The connection was lost.')
  }

  function start(file: File, entry: UploadEntry, done: (item: FileItem) => unknown) {
    let samples: { at: number, sent: number }[] = []
    const upload = new Upload(file, {
      endpoint: '/api/uploads',
      metadata: { filename: file.name, filetype: file.type },
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
      },
      async onSuccess() {
        try {
          const item = await collect(upload.url!)
          entry.state = 'done'
          // What was dropped on a page has its place already.
          if (!entry.placement) useTray().pickUp(item.id)
          drop(entry.id)
          await done(item)
        }
        catch (error) {
          if (entry.state === 'done') useNotices().say(`${entry.name} is in the library, but could not be placed. ${wordsOf(error)}`, { tone: 'attention' })
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

  /** Sends files; each is handed over as soon as it is in the library. */
  function add(files: File[], done: (item: FileItem) => unknown = () => {}, placements: string[] = []) {
    files.forEach((file, index) => {
      const leftOver = entries.find(entry => entry.state === 'left over' && entry.name === file.name && entry.size === file.size)
      if (leftOver) drop(leftOver.id)
      entries.push({ id: ++last, name: file.name, size: file.size, sent: 0, speed: 0, state: 'sending', error: '', placement: placements[index] })
      start(file, entries.at(-1)!, done)
    })
  }

  async function pause(entry: UploadEntry) {
    await running.get(entry.id)?.abort()
    entry.state = 'paused'
    entry.speed = 0
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
    }
    else {
      await running.get(entry.id)?.abort(true).catch(() => undefined)
    }
    drop(entry.id)
  }

  /** After a reload: what had been begun waits for its file to be chosen again. */
  async function findLeftOvers() {
    for (const stored of await storage!.findAllUploads()) {
      const head = stored.uploadUrl && await fetch(stored.uploadUrl, { method: 'HEAD', headers: { 'Tus-Resumable': '1.0.0' } }).catch(() => undefined)
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

  return { entries, active, forPlacement, add, pause, resume, cancel, findLeftOvers }
})
