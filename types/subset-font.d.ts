declare module 'subset-font' {
  /** A part of a font: the characters of a text, of the weights that are asked for. */
  export default function subsetFont(
    font: Buffer,
    text: string,
    options: { targetFormat: 'woff2'; variationAxes?: Record<string, { min: number; max: number }> },
  ): Promise<Buffer>
}
