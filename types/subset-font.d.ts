declare module 'subset-font' {
  /** A part of a font: the characters of a text, of the weights and sizes that are asked for. */
  export default function subsetFont(
    font: Buffer,
    text: string,
    options: { targetFormat: 'woff2' | 'sfnt'; variationAxes?: Record<string, number | { min: number; max: number }> },
  ): Promise<Buffer>
}
