declare module 'subset-font' {
  type Axes = Record<string, number | { min: number; max: number }>
  interface Options {
    targetFormat: 'woff2' | 'sfnt'
    variationAxes?: Axes
  }
  /** A part of a font: the characters of a text, of the weights and sizes that are asked for; or all of it, in another format. */
  export default function subsetFont(font: Buffer, text: string, options: Options): Promise<Buffer>
  export default function subsetFont(font: Buffer, text: undefined, options: Options & { keepAllGlyphs: true }): Promise<Buffer>
}
