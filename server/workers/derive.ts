import { mkdir, readFile, rename } from 'node:fs/promises'
import { dirname } from 'node:path'
import { parentPort } from 'node:worker_threads'
import { PDFiumLibrary } from '@hyzyla/pdfium'
import sharp, { type Sharp } from 'sharp'

/** A blob to look into, and where its picture goes. */
export interface DeriveTask { sha256: string, path: string, mediaType: string, picture: string }
export interface DeriveFacts { pages?: number, width?: number, height?: number }
export type DeriveResult = { sha256: string } & ({ facts: DeriveFacts, picture: boolean } | { error: string })

const WIDEST = 640
const TALLEST = 800
/** Larger pictures are refused: decoding them takes gigabytes. */
const MOST_PIXELS = 150_000_000

async function writePicture(image: Sharp, picture: string): Promise<void> {
  await mkdir(dirname(picture), { recursive: true })
  await image.resize({ width: WIDEST, height: TALLEST, fit: 'inside', withoutEnlargement: true }).webp({ quality: 82 }).toFile(`${picture}.new`)
  await rename(`${picture}.new`, picture)
}

async function derivePdf({ path, picture }: DeriveTask): Promise<DeriveFacts> {
  const library = await PDFiumLibrary.init()
  try {
    const document = await library.loadDocument(await readFile(path))
    try {
      const pages = document.getPageCount()
      if (!pages) throw new Error('The PDF has no pages.')
      const page = document.getPage(0)
      const { originalWidth } = page.getOriginalSize()
      const { data, width, height } = await page.render({ scale: Math.min(4, WIDEST / originalWidth), render: 'bitmap' })
      await writePicture(sharp(data, { raw: { width, height, channels: 4 } }), picture)
      return { pages }
    }
    finally {
      document.destroy()
    }
  }
  finally {
    library.destroy()
  }
}

async function derivePicture({ path, picture }: DeriveTask): Promise<DeriveFacts> {
  const image = sharp(path, { limitInputPixels: MOST_PIXELS, animated: false })
  const { width, height, orientation = 1 } = await image.metadata()
  await writePicture(image.autoOrient(), picture)
  // Orientations 5 to 8 lie on their side (Exif 2.32, tag 0x0112).
  return orientation > 4 ? { width: height, height: width } : { width, height }
}

/** Facts and first-page picture of a file; nothing for types that have none. */
export async function derive(task: DeriveTask): Promise<{ facts: DeriveFacts, picture: boolean }> {
  if (task.mediaType === 'application/pdf') return { facts: await derivePdf(task), picture: true }
  if (/^image\/(?:png|jpeg|gif|webp|avif|tiff|svg\+xml)$/.test(task.mediaType)) return { facts: await derivePicture(task), picture: true }
  return { facts: {}, picture: false }
}

parentPort?.on('message', async (task: DeriveTask) => {
  const { sha256 } = task
  try {
    parentPort!.postMessage({ sha256, ...await derive(task) } satisfies DeriveResult)
  }
  catch (error) {
    parentPort!.postMessage({ sha256, error: error instanceof Error ? error.message : String(error) } satisfies DeriveResult)
  }
})
