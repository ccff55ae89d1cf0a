import { mkdir, rename, rm, writeFile } from 'node:fs/promises'
import { dirname } from 'node:path'
import sharp, { type Sharp } from 'sharp'
import { Unreadable, type Reader } from './reader'

export const WIDEST = 640
const TALLEST = 800
/** Larger pictures are not drawn: decoding them takes gigabytes. */
const MOST_PIXELS = 150_000_000

// Reading has one processor at the most; the others are the visitors'.
sharp.concurrency(1)

/** A picture as WebP, within some pixels. */
export const toWebp = (image: Sharp, { width, height }: { width: number; height: number }): Promise<Buffer> =>
  image.resize({ width, height, fit: 'inside', withoutEnlargement: true }).webp({ quality: 80, effort: 1 }).toBuffer()

/** Writes a picture down, whole or not at all. */
export async function keepPicture(path: string, bytes: Buffer): Promise<void> {
  await mkdir(dirname(path), { recursive: true })
  try {
    await writeFile(`${path}.new`, bytes)
    await rename(`${path}.new`, path)
  } catch (error) {
    await rm(`${path}.new`, { force: true })
    throw error
  }
}

/** Draws a picture upright as WebP, at most some pixels wide. */
export const drawPicture = (path: string, width: number, height = 4 * width): Promise<Buffer> =>
  toWebp(sharp(path, { limitInputPixels: MOST_PIXELS, animated: false }).autoOrient(), { width, height })

const millions = (pixels: number) => Math.round(pixels / 1e6).toLocaleString('en')

/** Pixel size and a small copy of a picture. */
export const readPicture: Reader = async (path, sink) => {
  const { width, height, orientation = 1 } = await sharp(path, { limitInputPixels: false }).metadata()
  // Orientations 5 to 8 lie on their side (Exif 2.32, tag 0x0112).
  Object.assign(sink.facts, orientation > 4 ? { width: height, height: width } : { width, height })
  if (width * height > MOST_PIXELS) {
    throw new Unreadable(
      `The picture has ${millions(width * height)} million pixels; Trough draws up to ${millions(MOST_PIXELS)} million. Visitors can still download it.`,
    )
  }
  await keepPicture(sink.picture, await drawPicture(path, WIDEST, TALLEST))
  sink.pictured = true
}
