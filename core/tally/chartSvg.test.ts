import sharp from 'sharp'
import { describe, expect, it } from 'vitest'
import { chartSvg, niceStep } from './chartSvg'

const CHART = {
  title: 'Downloads <2026> & "more"',
  labels: ['Mon', 'Tue', 'Wed'],
  series: [
    { label: 'Phone', data: [10, 0, 30] },
    { label: 'Computer', data: [5, 0, 20] },
  ],
}

describe('the picture of a chart', () => {
  it('is well-formed, and says what it shows', async () => {
    const svg = chartSvg(CHART)
    // Its reader refuses what is no XML.
    expect(await sharp(Buffer.from(svg)).metadata()).toMatchObject({ format: 'svg', width: 960, height: 420 })
    await expect(sharp(Buffer.from(svg.replace('</defs>', ''))).metadata()).rejects.toThrow()
    expect(svg).toContain('<title id="title">Downloads &lt;2026&gt; &amp; &quot;more&quot;</title>')
  })

  it('has bars as tall as their numbers, drawn by a library of its own', async () => {
    const { data, info } = await sharp(Buffer.from(chartSvg(CHART)))
      .removeAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true })
    /** Points of a colour in a column of the picture. */
    const tall = (x: number, [r, g, b]: readonly [number, number, number]) => {
      let points = 0
      for (let y = 0; y < 346; y++) {
        const at = (y * info.width + x) * 3
        if (data[at] === r && data[at + 1] === g && data[at + 2] === b) points++
      }
      return points
    }
    const first = [0x0e, 0x6a, 0x68] as const
    // The middle of the first and of the third bar.
    const [one, third] = [56 + 148, 56 + 148 * 5]
    expect(tall(third, first) / tall(one, first)).toBeCloseTo(3, 1)
    expect(tall(56 + 148 * 3, first)).toBe(0)
  })

  it('holds where there is nothing to show', async () => {
    for (const chart of [
      { title: '', labels: [], series: [] },
      { title: '', labels: ['a'], series: [{ label: 'x', data: [0] }] },
    ]) {
      const svg = chartSvg(chart)
      expect(svg).not.toContain('NaN')
      await sharp(Buffer.from(svg)).metadata()
    }
  })
})

it('takes round steps', () => {
  expect([1, 4, 9, 23, 100, 260, 1100].map(niceStep)).toEqual([1, 1, 2, 5, 20, 100, 500])
})
