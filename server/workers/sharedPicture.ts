import { parentPort } from 'node:worker_threads'
import sharp from 'sharp'
import type { Palette } from '../../core/look/palette'
import { sharedPictureSvg } from '../../core/page/sharedPicture'
import { openLettering } from '../services/lettering/lettering'
import { comeAfterVisitors } from './courtesy'

export interface SharedPictureTask {
  title: string
  site: string
  palette: Palette
  typeface: 'literata' | 'hanken'
}
/** A PNG. */
export type SharedPictureMessage = Uint8Array

/** Draws what stands for pages without a picture, away from everything else: setting a title takes a tenth of a second. */
comeAfterVisitors()
parentPort!.on('message', async ({ typeface, ...words }: SharedPictureTask) => {
  const svg = sharedPictureSvg(words, await openLettering(typeface))
  parentPort!.postMessage((await sharp(Buffer.from(svg)).png({ palette: true }).toBuffer()) satisfies SharedPictureMessage)
})
