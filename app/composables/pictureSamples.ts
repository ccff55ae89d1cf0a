import { reactive } from 'vue'
import { channelsOf, toHex } from '~~/core/look/channels'
import { fillHref } from '~~/core/page/href'
import { targetFacts } from '~~/core/page/placeholders'

/** Points along each side of a picture at which its colours are read. */
const SIDE = 24
/** Colours closer than this, of 256 steps in each channel, are one. */
const COARSE = 8

const samples = reactive(new Map<string, string[] | 'reading'>())

/** Reads the colours of a picture all over it. */
async function readColours(href: string): Promise<string[]> {
  const image = new Image()
  image.src = href
  await image.decode()
  const canvas = new OffscreenCanvas(SIDE, SIDE)
  const context = canvas.getContext('2d', { willReadFrequently: true })!
  // Drawn on white: what is seen through is lighter than the words on it expect at the worst.
  context.fillStyle = '#FFFFFF'
  context.fillRect(0, 0, SIDE, SIDE)
  context.drawImage(image, 0, 0, SIDE, SIDE)
  const { data } = context.getImageData(0, 0, SIDE, SIDE)
  const colours = Array.from({ length: SIDE * SIDE }, (_, point) => toHex([...data.subarray(point * 4, point * 4 + 3)]))
  const kept = new Map(
    colours.map(colour => [
      channelsOf(colour)
        .map(channel => Math.floor(channel / COARSE))
        .join(),
      colour,
    ]),
  )
  return [...kept.values()]
}

/** The colours of pictures behind words, read as they are first asked for; what asks is drawn again when they are known. */
export function usePictureSamples() {
  const { known } = useLibrary()

  return (file: string): string[] | undefined => {
    const item = known.get(file)
    const href = item && !item.deleted ? fillHref(targetFacts(item)) : undefined
    if (!href) return undefined
    const sample = samples.get(href)
    if (sample === undefined) {
      samples.set(href, 'reading')
      // A picture that cannot be read is not shown either: its colour stands alone.
      void readColours(href)
        .catch(() => [])
        .then(colours => samples.set(href, colours))
    }
    return Array.isArray(sample) ? sample : undefined
  }
}
