import { mkdir, open, readFile, rename, rm, writeFile } from 'node:fs/promises'
import { dirname } from 'node:path'
import { decode as decodeBmp } from 'bmp-ts'
import heic from 'heic-decode'
import sharp, { type Sharp } from 'sharp'
import { Unreadable, type Reader } from './reader'

export const WIDEST = 640
const TALLEST = 800
/** Larger pictures are not drawn: decoding them takes gigabytes. */
const MOST_PIXELS = 150_000_000

const millions = (pixels: number) => Math.round(pixels / 1e6).toLocaleString('en')

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

/** Bytes at the beginning that tell what a picture is. */
const TELLING = 64
/** Brands of pictures in HEVC (ISO/IEC 23008-12, B.4); others have the same container, AVIF among them, which sharp reads. */
const HEIC = /^ftyp(?:....){0,9}?(?:hei[cxms]|hev[cxms])/s
const AVIF = /avi[fs]/

/** A picture that is there as pixels. */
interface Pixels {
  width: number
  height: number
  /** @returns red, green, blue and opacity of each pixel, row by row */
  decode: () => Promise<Uint8Array>
}

/** Pictures that sharp does not read: its builds have no decoder for HEVC, and none for BMP. */
async function pixelsOf(path: string): Promise<Pixels | undefined> {
  const handle = await open(path, 'r')
  const beginning = Buffer.alloc(TELLING)
  await handle.read(beginning, 0, TELLING, 0).finally(() => handle.close())
  const brands = beginning.toString('latin1', 4)
  if (HEIC.test(brands) && !AVIF.test(brands)) return heicPixels(path)
  if (beginning.toString('latin1', 0, 2) === 'BM') return bmpPixels(path, beginning)
  return undefined
}

async function heicPixels(path: string): Promise<Pixels> {
  const images = await heic.all({ buffer: await readFile(path) }).catch((error: Error) => {
    throw new Unreadable(`The picture cannot be read (${error.message}). Visitors can still download it.`)
  })
  // What the types leave out: pixels of the picture as it is shown, known before any is decoded.
  const [first] = images as ((typeof images)[number] & { width: number; height: number })[]
  if (!first) throw new Unreadable('There is no picture in this file. Visitors can still download it.')
  return { width: first.width, height: first.height, decode: async () => new Uint8Array((await first.decode()).data) }
}

/** The height is negative where rows come from the top (Windows bitmap header, biHeight). */
const bmpPixels = (path: string, beginning: Buffer): Pixels => ({
  width: beginning.readInt32LE(18),
  height: Math.abs(beginning.readInt32LE(22)),
  async decode() {
    const { data } = decodeBmp(await readFile(path), { toRGBA: true })
    return new Uint8Array(data)
  },
})

/** Opens a picture of any kind that is drawn. @throws Unreadable where it has too many pixels */
async function openPicture(path: string): Promise<{ width: number; height: number; image: () => Promise<Sharp> }> {
  const pixels = await pixelsOf(path)
  if (!pixels) {
    const { width, height, orientation = 1 } = await sharp(path, { limitInputPixels: false }).metadata()
    const image = async () => sharp(path, { limitInputPixels: MOST_PIXELS, animated: false }).autoOrient()
    // Orientations 5 to 8 lie on their side (Exif 2.32, tag 0x0112).
    return orientation > 4 ? { width: height, height: width, image } : { width, height, image }
  }
  const { width, height, decode } = pixels
  return { width, height, image: async () => sharp(await decode(), { raw: { width, height, channels: 4 }, limitInputPixels: MOST_PIXELS }) }
}

function refuseLarge({ width, height }: { width: number; height: number }): void {
  if (width * height <= MOST_PIXELS) return
  throw new Unreadable(
    `The picture has ${millions(width * height)} million pixels; Trough draws up to ${millions(MOST_PIXELS)} million. Visitors can still download it.`,
  )
}

/** Draws a picture upright as WebP, at most some pixels wide. */
export async function drawPicture(path: string, width: number, height = 4 * width): Promise<Buffer> {
  const picture = await openPicture(path)
  refuseLarge(picture)
  return toWebp(await picture.image(), { width, height })
}

/** Pixel size and a small copy of a picture. */
export const readPicture: Reader = async (path, sink) => {
  const picture = await openPicture(path)
  Object.assign(sink.facts, { width: picture.width, height: picture.height })
  refuseLarge(picture)
  await keepPicture(sink.picture, await toWebp(await picture.image(), { width: WIDEST, height: TALLEST }))
  sink.pictured = true
}
