import { mkdir, rename } from 'node:fs/promises'
import { dirname } from 'node:path'
import sharp, { type Sharp } from 'sharp'
import { Unreadable, type Reader } from './reader'

export const WIDEST = 640
const TALLEST = 800
/** Larger pictures are not drawn: decoding them takes gigabytes. */
const MOST_PIXELS = 150_000_000

// Reading has one processor at the most; the others are the visitors'.
sharp.concurrency(1)

/** Writes a picture as WebP, whole or not at all. */
export async function writePicture(image: Sharp, path: string, { width = WIDEST, height = TALLEST } = {}): Promise<void> {
  await mkdir(dirname(path), { recursive: true })
  await image.resize({ width, height, fit: 'inside', withoutEnlargement: true }).webp({ quality: 80, effort: 1 }).toFile(`${path}.new`)
  await rename(`${path}.new`, path)
}

/** Draws a picture upright, as wide as is wanted or as it is. */
export const drawPicture = (path: string, to: string, width?: number): Promise<void> =>
  writePicture(sharp(path, { limitInputPixels: MOST_PIXELS, animated: false }).autoOrient(), to, width === undefined ? {} : { width, height: 4 * width })

const millions = (pixels: number) => Math.round(pixels / 1e6).toLocaleString('en')

/** Pixel size and a small copy of a picture. */
export const readPicture: Reader = async (path, sink) => {
  const { width, height, orientation = 1 } = await sharp(path, { limitInputPixels: false }).metadata()
  // Orientations 5 to 8 lie on their side (Exif 2.32, tag 0x0112).
  Object.assign(sink.facts, orientation > 4 ? { width: height, height: width } : { width, height })
  if (width * height > MOST_PIXELS) {
    throw new Unreadable(`The picture has ${millions(width * height)} million pixels; Trough draws up to ${millions(MOST_PIXELS)} million. Visitors can still download it.`)
  }
  await drawPicture(path, sink.picture)
  sink.pictured = true
}
