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

/** Drags a folder of the computer over a spot and lets it go there. Its entries are read in two parts, as in browsers. */
export async function dropFolder(
  page: Page,
  name: string,
  files: RealFile[],
  selector: string,
  spot: { x: number; y: number },
): Promise<void> {
  const dataTransfer = await page.evaluateHandle(
    ({ folder, carried }) => {
      const inner = carried.map(({ name: own, mimeType, base64 }) => {
        const file = new File([Uint8Array.from(atob(base64), character => character.charCodeAt(0))], own, { type: mimeType })
        return {
          isFile: true,
          isDirectory: false,
          name: own,
          fullPath: `/${folder}/${own}`,
          file: (take: (file: File) => void) => take(file),
        }
      })
      const entry = {
        isFile: false,
        isDirectory: true,
        name: folder,
        fullPath: `/${folder}`,
        createReader() {
          const parts = [inner.slice(0, 1), inner.slice(1), []]
          return { readEntries: (take: (entries: unknown[]) => void) => take(parts.shift()!) }
        },
      }
      // Only a real drag of the computer's gives folders: what it tells of the one thing it carries is put in its place.
      Object.defineProperty(DataTransferItem.prototype, 'webkitGetAsEntry', {
        configurable: true,
        value(this: DataTransferItem) {
          return this.getAsFile()?.name === folder ? entry : null
        },
      })
      const transfer = new DataTransfer()
      transfer.items.add(new File([], folder))
      return transfer
    },
    { folder: name, carried: files.map(({ name: own, mimeType, buffer }) => ({ name: own, mimeType, base64: buffer.toString('base64') })) },
  )
  for (const type of ['dragenter', 'dragover', 'drop'])
    await page.dispatchEvent(selector, type, { dataTransfer, clientX: spot.x, clientY: spot.y })
}
