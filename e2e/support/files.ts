import { createHash } from 'node:crypto'
import type { Page } from '@playwright/test'
import { makePdf } from '../../demo/pdf'
import { kilnManual } from '../../demo/texts'

export interface RealFile {
  name: string
  mimeType: string
  buffer: Buffer
}

/** A PDF of about thirty pages, of which no demo file holds the bytes. */
export async function realPdf(name = 'K90 manual.pdf'): Promise<RealFile> {
  const manual = kilnManual(name)
  return {
    name,
    mimeType: 'application/pdf',
    buffer: await makePdf({ ...manual, sections: [...manual.sections, ...manual.sections] }, new Date('2026-11-20')),
  }
}

export const sha256 = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex')

/** Drags files of the computer over a spot of an element and lets them go there. */
export async function dropFiles(page: Page, files: RealFile[], selector: string, spot: { x: number; y: number }): Promise<void> {
  const dataTransfer = await page.evaluateHandle(
    carried => {
      const transfer = new DataTransfer()
      for (const { name, mimeType, base64 } of carried) {
        transfer.items.add(new File([Uint8Array.from(atob(base64), character => character.charCodeAt(0))], name, { type: mimeType }))
      }
      return transfer
    },
    files.map(({ name, mimeType, buffer }) => ({ name, mimeType, base64: buffer.toString('base64') })),
  )
  for (const type of ['dragenter', 'dragover', 'drop'])
    await page.dispatchEvent(selector, type, { dataTransfer, clientX: spot.x, clientY: spot.y })
}

/** Drags folders of the computer over a spot and lets them go there. Their entries are read in two parts, as in browsers. */
export async function dropFolders(
  page: Page,
  folders: Record<string, RealFile[]>,
  selector: string,
  spot: { x: number; y: number },
): Promise<void> {
  const carried = Object.entries(folders).map(([folder, files]) => ({
    folder,
    files: files.map(({ name, mimeType, buffer }) => ({ name, mimeType, base64: buffer.toString('base64') })),
  }))
  const dataTransfer = await page.evaluateHandle(given => {
    const transfer = new DataTransfer()
    const entries = new Map<string, object>()
    for (const { folder, files } of given) {
      const inner = files.map(({ name, mimeType, base64 }) => {
        const file = new File([Uint8Array.from(atob(base64), character => character.charCodeAt(0))], name, { type: mimeType })
        const fullPath = `/${folder}/${name}`
        return { isFile: true, isDirectory: false, name, fullPath, file: (take: (file: File) => void) => take(file) }
      })
      const parts = [inner.slice(0, 1), inner.slice(1), []]
      const createReader = () => ({ readEntries: (take: (read: unknown[]) => void) => take(parts.shift()!) })
      entries.set(folder, { isFile: false, isDirectory: true, name: folder, fullPath: `/${folder}`, createReader })
      transfer.items.add(new File([], folder))
    }
    // Only a real drag of the computer's gives folders: what it tells of each thing it carries is put in its place.
    Object.defineProperty(DataTransferItem.prototype, 'webkitGetAsEntry', {
      configurable: true,
      value(this: DataTransferItem) {
        return entries.get(this.getAsFile()?.name ?? '') ?? null
      },
    })
    return transfer
  }, carried)
  for (const type of ['dragenter', 'dragover', 'drop'])
    await page.dispatchEvent(selector, type, { dataTransfer, clientX: spot.x, clientY: spot.y })
}
