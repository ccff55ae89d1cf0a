/** Bytes of an answer: made for it, or a part of stored bytes, from `start` up to `end`. */
export type Stretch = Uint8Array | { source: string; start: number; end: number }
