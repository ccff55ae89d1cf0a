import { describe, expect, it } from 'vitest'
import { DEFAULT_PALETTE } from '../look/palette'
import { SHARED_SIZE, sharedPictureSvg, type Lettering } from './sharedPicture'

/** Every letter half as wide as it is tall; none for Chinese. */
const set: Lettering = (words, size) =>
  /\p{Script=Han}/u.test(words)
    ? undefined
    : {
        width: (words.length * size) / 2,
        strokes: [...words].map((letter, index) => ({
          outline: `M${letter.codePointAt(0)} 0Z`,
          x: (index * size) / 2,
          scale: size / 1000,
        })),
      }
const draw = (title: string) => sharedPictureSvg({ title, site: 'Marlpit', palette: DEFAULT_PALETTE }, set)
const placesOf = (svg: string) =>
  [...svg.matchAll(/translate\(([\d.]+) ([\d.]+)\) scale\(([\d.]+)/g)].map(([, x, y, scale]) => ({
    x: Number(x),
    y: Number(y),
    size: Number(scale) * 1000,
  }))

describe('the picture that stands for a page', () => {
  it('has the title in one line as large as there is, and the site below', () => {
    const places = placesOf(draw('Price list'))
    expect(places).toHaveLength('Price list'.length + 'Marlpit'.length)
    expect(new Set(places.map(({ y }) => y)).size).toBe(2)
    expect(places[0]!.size).toBe(92)
  })

  it('keeps long titles within it, smaller and in up to three lines', () => {
    const places = placesOf(draw('Everything we know about glazes for stoneware and how each of them behaves in a slow cooling kiln'))
    const lines = new Set(places.map(({ y }) => y))
    expect(lines.size).toBeLessThanOrEqual(4)
    for (const { x, y, size } of places) {
      expect(x + size / 2).toBeLessThanOrEqual(SHARED_SIZE.width)
      expect(y).toBeLessThan(SHARED_SIZE.height)
    }
  })

  it('leaves out what it has no letters for, and says no name twice', () => {
    expect(placesOf(draw('価格表'))).toHaveLength('Marlpit'.length)
    expect(placesOf(draw('Marlpit'))).toHaveLength('Marlpit'.length)
  })
})
