import { fillAt, FILLS } from '~~/core/tally/fills'

const SIDE = 8

function hatchedTile(colour: string, hatch: string): HTMLCanvasElement {
  const tile = document.createElement('canvas')
  tile.width = tile.height = SIDE
  const pen = tile.getContext('2d')!
  pen.fillStyle = colour
  pen.fillRect(0, 0, SIDE, SIDE)
  pen.strokeStyle = pen.fillStyle = '#ffffffb8'
  pen.lineWidth = 1.6
  pen.beginPath()
  const line = (x1: number, y1: number, x2: number, y2: number) => {
    pen.moveTo(x1, y1)
    pen.lineTo(x2, y2)
  }
  if (hatch === 'rising') for (const shift of [-SIDE, 0, SIDE]) line(shift, SIDE, shift + SIDE, 0)
  if (hatch === 'falling') for (const shift of [-SIDE, 0, SIDE]) line(shift, 0, shift + SIDE, SIDE)
  if (hatch === 'level') line(0, SIDE / 2, SIDE, SIDE / 2)
  if (hatch === 'upright') line(SIDE / 2, 0, SIDE / 2, SIDE)
  if (hatch === 'dots') pen.fillRect(SIDE / 2 - 1, SIDE / 2 - 1, 3, 3)
  pen.stroke()
  return tile
}

/** What the bars of a place in the order are filled with; the last of them is the rest's. */
export function barFill(place: number): string | CanvasPattern {
  const [colour, hatch] = FILLS[fillAt(place)]!
  if (hatch === 'none') return colour
  return document.createElement('canvas').getContext('2d')!.createPattern(hatchedTile(colour, hatch), 'repeat')!
}
